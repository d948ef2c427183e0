import ipaddr from 'ipaddr.js';

/** Where an address belongs, by the registries of special-purpose addresses (RFC 6890). */
export type AddressRange = 'private' | 'carrier-grade' | 'link-local' | 'own' | 'special' | 'public';

const RANGES: Readonly<Record<string, AddressRange>> = {
  private: 'private',
  uniqueLocal: 'private',
  carrierGradeNat: 'carrier-grade',
  linkLocal: 'link-local',
  loopback: 'own',
  unicast: 'public',
};

/** Null: it is no address. */
export function addressRange(address: string): AddressRange | null {
  const plain = address.replace(/%.*$/, '');
  return ipaddr.isValid(plain) ? (RANGES[ipaddr.process(plain).range()] ?? 'special') : null;
}

/** A range in words. */
export const RANGE_WORDS: Readonly<Record<AddressRange, string>> = {
  private: 'private (RFC 1918, RFC 4193)',
  'carrier-grade': 'shared by customers of a provider (RFC 6598)',
  'link-local': 'of one link only',
  own: 'this machine',
  special: 'set apart for a purpose (RFC 6890)',
  public: 'public',
};

/** Whom an address belongs to, in words; of what is no address nothing. */
export function rangeWordsOf(address: string): string {
  const range = addressRange(address);
  return range === null ? '' : RANGE_WORDS[range];
}
