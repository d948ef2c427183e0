import { lanAddresses } from '@/wire/address';

/** An address of this console that other machines reach; this machine's own name where it has none. */
export function reachableOrigin(port: number): string {
  const [first = 'localhost'] = lanAddresses();
  return `http://${first}:${port}`;
}

/** What to read out: `http://192.0.2.20:4870/j/KMT4QX`, one for each address; this machine's own name when it has none. */
export function joinAddresses(port: number, joinCode: string): string[] {
  const hosts = lanAddresses();
  return (hosts.length === 0 ? ['localhost'] : hosts).map((host) => `http://${host}:${port}/j/${joinCode}`);
}
