import { isIPv4, isIPv6 } from 'node:net';
import type { Link, MachineFacts } from '@/core';
import type { StoredPeer } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** The host at which other machines of ours reach an agent: of the interface towards its gateway, as far as that is known. */
export function hostOf({ links, gateway }: MachineFacts): string | null {
  const up = links.filter(({ up: isUp, medium }) => isUp && medium !== 'other');
  const first = up.find(({ name }) => name === gateway?.link);
  const all = [...(first === undefined ? [] : [first]), ...up, ...links].flatMap(({ addresses }) => addresses);
  const ipv4 = all.filter(isIPv4);
  const own = ipv4.find((address) => !address.startsWith('127.')) ?? ipv4[0];
  if (own !== undefined) return own;
  // Of IPv6 none that holds for one link alone (RFC 4291 §2.5.6), nor loopback.
  const ipv6 = all.find((address) => isIPv6(address) && address !== '::1' && !/^fe[89ab]/i.test(address));
  return ipv6 === undefined ? null : `[${ipv6}]`;
}

export interface AskedFarEnd {
  readonly peer: StoredPeer;
  /** Null: the far end is an agent. */
  readonly baseUrl: string | null;
  /** So long an agent serves at most, ms. */
  readonly forMs: number;
}

export interface FarEndOfRun {
  readonly baseUrl: string;
  readonly peerKey: string | null;
  /** How the machine at the other end is connected, where that is an agent. */
  readonly link: Link | null;
}

/** What the far end is for one run: an agent is asked to serve, and the key that it serves with is kept. */
export async function farEndOf(
  context: ConsoleContext,
  { peer, baseUrl, forMs }: AskedFarEnd,
  runId: string,
): Promise<Outcome<FarEndOfRun, 'far-end-away'>> {
  if (baseUrl !== null) return done({ baseUrl, peerKey: peer.publicKey, link: null });
  const { agents, sites } = context.store;
  const agentId = peer.agentId!;
  const [agent, device] = [await agents.byDevice(agentId), await sites.device(agentId)];
  const host = agent === null ? null : hostOf(agent.facts);
  const at =
    host === null ? null : await context.farEnds.open(agentId, { serveId: runId, trust: context.publicKey, forMs });
  if (at === null || device === null) return failed('far-end-away', { peer: peer.name });
  await sites.saveKeys(peer.id, { publicKey: at.publicKey, otherKey: null });
  return done({ baseUrl: `http://${host}:${at.port}`, peerKey: at.publicKey, link: device.link });
}
