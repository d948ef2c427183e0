import { BlockList, isIPv6 } from 'node:net';

const PRIVATE = new BlockList();
// RFC 6890, and what stands for it in IPv6: this host, private, carrier-grade NAT, link-local, multicast, reserved.
for (const [network, bits] of [
  ...([
    ['0.0.0.0', 8],
    ['10.0.0.0', 8],
    ['100.64.0.0', 10],
    ['127.0.0.0', 8],
    ['169.254.0.0', 16],
  ] as const),
  ...([
    ['172.16.0.0', 12],
    ['192.0.0.0', 24],
    ['192.168.0.0', 16],
    ['198.18.0.0', 15],
  ] as const),
  ...([
    ['224.0.0.0', 4],
    ['240.0.0.0', 4],
  ] as const),
] as const)
  PRIVATE.addSubnet(network, bits, 'ipv4');
for (const [network, bits] of [
  ['::', 128],
  ['::1', 128],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  PRIVATE.addSubnet(network, bits, 'ipv6');

const MAPPED = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i;

/** Whether an address is one of this machine, of this network, or of nobody: a message there could be meant for something inside. */
export function isPrivateAddress(address: string): boolean {
  const mapped = MAPPED.exec(address)?.[1];
  if (mapped !== undefined) return PRIVATE.check(mapped, 'ipv4');
  return PRIVATE.check(address, isIPv6(address) ? 'ipv6' : 'ipv4');
}
