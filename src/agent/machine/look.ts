import { arch, release, type as systemType } from 'node:os';
import type { MachineFacts } from '@/core';
import type { AgentHello } from '@/wire';
import { defaultGateway, readRoutes } from './default-route';
import { readArp, readNeighbours, type Neighbour } from './neighbours';
import { netLinks } from './net-links';
import { printed, readFact } from './printed';
import { reverseName } from './reverse-name';
import { isStub, readResolvConf, readResolvectl } from './resolvers';

function systemName(): string {
  const pretty = /^PRETTY_NAME="?([^"\n]*)"?/m.exec(readFact('/etc/os-release') ?? '')?.[1];
  return `${pretty ?? `${systemType()} ${release()}`}, ${arch()}`;
}

/** The least round trip of three to an address by the system's own ping, ms. */
async function leastRoundTrip(address: string): Promise<number | null> {
  const text = await printed('ping', ['-n', '-c', '3', '-i', '0.2', '-W', '1', address]);
  const times = [...(text ?? '').matchAll(/time=([\d.]+) ms/g)].map(([, ms]) => Number(ms));
  return times.length === 0 ? null : Math.min(...times);
}

/** Where this machine asks for names; behind a stub of its own, whom that asks. */
export async function ownResolvers(): Promise<string[]> {
  const named = readResolvConf(readFact('/etc/resolv.conf') ?? '');
  if (!named.every(isStub)) return named;
  return readResolvectl((await printed('resolvectl', ['dns'])) ?? '');
}

export const ownGateway = () => defaultGateway(readRoutes(readFact('/proc/net/route') ?? ''));

/** What this machine sees of itself. */
export async function lookAtMachine(): Promise<MachineFacts> {
  const gateway = ownGateway();
  const [gatewayMs, servers] = await Promise.all([
    gateway === null ? null : leastRoundTrip(gateway.address),
    ownResolvers(),
  ]);
  return { system: systemName(), gateway, gatewayMs, resolvers: servers, links: netLinks() };
}

/** A network with more is told of in part. */
const MOST_NEIGHBOURS = 256;

/** Who else is heard, one for each hardware address, IPv4 before IPv6, with names. */
export async function namedNeighbours(): Promise<AgentHello['neighbours']> {
  const heard = (await lookAround()).sort((a, b) => Number(a.address.includes(':')) - Number(b.address.includes(':')));
  const each = [...new Map(heard.reverse().map((neighbour) => [neighbour.mac, neighbour])).values()];
  const some = each.slice(0, MOST_NEIGHBOURS);
  return Promise.all(some.map(async ({ address, mac }) => ({ address, mac, name: await reverseName(address) })));
}

/** Who else the machine has heard on its networks. */
export async function lookAround(): Promise<Neighbour[]> {
  const json = await printed('ip', ['-json', 'neigh']);
  try {
    return json === null ? readArp(readFact('/proc/net/arp') ?? '') : readNeighbours(json);
  } catch {
    return [];
  }
}
