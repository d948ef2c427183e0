import { arch } from 'node:os';
import type { MachineFacts } from '@/core';
import type { AgentHello } from '@/wire';
import type { Neighbour } from './machine-view';
import { reverseName } from './reverse-name';
import { thisMachine } from './this-machine';

/** What this machine sees of itself. */
export async function lookAtMachine(): Promise<MachineFacts> {
  const [system, gateway] = [await thisMachine.systemName(), await thisMachine.gateway()];
  const [gatewayMs, resolvers, links] = await Promise.all([
    gateway === null ? null : thisMachine.roundTripMs(gateway.address),
    thisMachine.resolvers(),
    thisMachine.links(),
  ]);
  return { system: `${system}, ${arch()}`, gateway, gatewayMs, resolvers, links };
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
export function lookAround(): Promise<Neighbour[]> {
  return thisMachine.neighbours();
}
