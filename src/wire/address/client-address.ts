import { networkInterfaces } from 'node:os';

/** What can be told from a client’s address by the machine that it reached. */
export interface ClientAddress {
  readonly ipVersion: 4 | 6;
  /** Whether the address belongs to this machine itself. */
  readonly sameMachine: boolean;
}

/** IPv4 addresses mapped into IPv6 (RFC 4291 §2.5.5.2) count as IPv4. */
export function plainAddress(address: string): string {
  return address.replace(/^::ffff:(?=\d+\.)/i, '');
}

export function readClientAddress(remoteAddress: string | undefined): ClientAddress {
  const address = plainAddress(remoteAddress ?? '');
  const own = Object.values(networkInterfaces()).flatMap((entries) => (entries ?? []).map((entry) => entry.address));
  return {
    ipVersion: address.includes(':') ? 6 : 4,
    sameMachine: own.includes(address) || address.startsWith('127.') || address === '::1',
  };
}
