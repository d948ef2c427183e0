import type { Lane, LaneKind, LaneRole, MachineFacts, Reach } from '@/core';
import { isPrivateAddress } from '@/wire/address';
import { isIP } from 'node:net';

const EVERY_MS = 1000;
/** The second resolver rarely tells more than the first. */
const MOST_RESOLVERS = 2;

export type NewLane = Omit<Lane, 'id'>;

/** The host of a peer's address, as far as it names one: "/" and ":4871" are this console's own machine. */
function hostOf(address: string): string | null {
  const text = address.includes('://') ? address : `http://${address}`;
  if (address.startsWith('/') || address.startsWith(':') || !URL.canParse(text)) return null;
  return new URL(text).hostname.replace(/^\[|\]$/g, '');
}

/** A name by itself could be anywhere; an address says whether it lies in this network. */
const sideOf = (target: string): LaneRole => (isIP(target) !== 0 && isPrivateAddress(target) ? 'inside' : 'outside');

interface PeerAt {
  readonly name: string;
  readonly reach: Reach;
  readonly address: string;
}

export const ROLE_OF_REACH = { local: 'inside', internet: 'outside', tunnel: 'far', between: 'inside' } as const;

/**
 * With which lanes a machine begins: its gateway, the peers inside, outside and behind the tunnel, its resolvers. `consoleHost`:
 * where it reaches the console, which is a peer inside as well. Each target once.
 */
export function startLanes(facts: MachineFacts, peers: readonly PeerAt[], consoleHost: string | null): NewLane[] {
  const echo = (name: string, target: string, role: LaneRole): NewLane => ({
    ...{ name, kind: 'echo', target, role, everyMs: EVERY_MS },
  });
  const all = [
    ...(facts.gateway === null ? [] : [echo('Gateway', facts.gateway.address, 'gateway')]),
    ...peers.flatMap(({ name, reach, address }) => {
      const host = hostOf(address) ?? (reach === 'local' ? consoleHost : null);
      return host === null ? [] : [echo(name, host, ROLE_OF_REACH[reach])];
    }),
    ...facts.resolvers
      .slice(0, MOST_RESOLVERS)
      .map((resolver) => echo(`Resolver ${resolver}`, resolver, sideOf(resolver))),
  ];
  const own = new Set(['localhost', '127.0.0.1', '::1', ...facts.links.flatMap(({ addresses }) => addresses)]);
  return all.filter(
    ({ target }, place) => !own.has(target) && all.findIndex((each) => each.target === target) === place,
  );
}

/** How its own radio hears is a small question to its own system. */
const RADIO_EVERY_MS = 5000;

/** Of a machine that is on the air: how well it hears, and how often it has to say things again. */
export function radioLanes({ links }: MachineFacts): NewLane[] {
  const [radio] = links.filter(({ medium, up }) => medium === 'wifi' && up);
  if (radio === undefined) return [];
  const lane = (name: string, kind: LaneKind): NewLane => ({
    ...{ name: `${name} ${radio.name}`, kind, target: radio.name, role: 'inside', everyMs: RADIO_EVERY_MS },
  });
  return [lane('Signal of', 'signal'), lane('Sent again by', 'retries')];
}
