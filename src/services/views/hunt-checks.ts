import { CHECK_CODES, CHECKS, isOfDevice, othersHeardWords, type CheckCode } from '@/core';
import type { Device, StoredHunt, StoredHuntStep } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { ruledOutIn } from '../diagnosis';

/** Something that a person can rule out by looking. */
export interface ShownCheck {
  readonly check: CheckCode;
  readonly done: boolean;
  /** What an agent sees that helps to look; null: nothing. */
  readonly hint: string | null;
}

/** What can be ruled out on the way of a hunt: of a device only where one is named, its tunnel only where it has one. */
export async function checksOf(
  context: ConsoleContext,
  hunt: StoredHunt,
  steps: readonly StoredHuntStep[],
  focus: Device | null,
): Promise<ShownCheck[]> {
  if (hunt.state !== 'open' || hunt.kind !== 'hunt') return [];
  const nowMs = context.wallMs();
  const done = ruledOutIn(steps, nowMs);
  const others = await othersHeard(context, hunt.siteId, nowMs);
  const named = hunt.focus.deviceId !== undefined;
  return CHECK_CODES.filter((check) => {
    const kinds: readonly string[] = CHECKS[check].kinds;
    return kinds.includes('vpn') ? named && focus?.link.medium === 'tunnel' : named || !isOfDevice(check);
  }).map((check) => ({ check, done: done.has(check), hint: check === 'others-idle' ? others : null }));
}

/** Agents greet every five minutes. */
const HEARD_MS = 15 * 60_000;

/** Who else is on the network of an office just now; null where no agent listens. */
async function othersHeard({ store, standing }: ConsoleContext, siteId: string, nowMs: number): Promise<string | null> {
  const agents = await store.agents.ofSite(siteId);
  if (!agents.some(({ deviceId }) => standing.isPresent(deviceId))) return null;
  // The way out loads nothing, and the agents are ours.
  const aside = new Set(
    agents.flatMap(({ facts }) => [facts.gateway?.address, ...facts.links.flatMap(({ addresses }) => addresses)]),
  );
  const heard = await store.agents.neighboursOf(siteId, nowMs - HEARD_MS);
  const others = heard.filter(({ address }) => !aside.has(address));
  return othersHeardWords({
    count: others.length,
    // All of an office have the rest of their names in common.
    names: others.flatMap(({ name }) => name?.split('.')[0] ?? []),
    fresh: others.filter(({ knownAtMs }) => knownAtMs === null).length,
  });
}
