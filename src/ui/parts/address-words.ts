/** An address as people read it. */
export function addressWords(address: string | null): string {
  if (address === null) return 'address not known';
  return address === '::1' || address.startsWith('127.') ? 'this machine' : address;
}
