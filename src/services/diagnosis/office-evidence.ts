import {
  ceilingOfLink,
  groupedBy,
  median,
  type DiagnosedDevice,
  type DiagnosisInput,
  type FitnessCode,
  type Occasion,
  type OccasionRate,
  USUAL_MTU_BYTES,
  type Plan,
  type SwapCode,
} from '@/core';
import type { Store } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { hoursIn } from './office-hours';
import { KnownRuns, type OfficeRuns, type RunSet } from './known-runs';
import { keptWordsOf, officeSaid } from './office-said';
import { OfficeSegments, type OfficeFacts } from './office-segments';

const DAY_MS = 24 * 3600_000;
/** Evidence gets old: cables are moved, neighbours buy radios. Hours need weeks to show. */
export const EVIDENCE_MS = 14 * DAY_MS;
const HOURS_MS = 28 * DAY_MS;

const PORT = { medium: 'wired', mtuBytes: USUAL_MTU_BYTES } as const;

const WAYS = { down: ['downBps', 'downLowBps'], up: ['upBps', 'upLowBps'] } as const;

/** Most occasions are one run or three: no more is made for one than is kept of it. */
function rateOf(runs: RunSet, way: 'down' | 'up'): OccasionRate | null {
  const [figure, low] = WAYS[way];
  const rates: number[] = [];
  let [provenBps, provenBy] = [-Infinity, ''];
  for (const run of runs) {
    const bps = run[figure];
    if (bps === null || bps <= 0) continue;
    rates.push(bps);
    const lowBps = run.brief?.[low] ?? bps;
    if (lowBps > provenBps) [provenBps, provenBy] = [lowBps, run.id];
  }
  const medianBps = median(rates);
  if (medianBps === null) return null;
  const off = rates.length < 3 ? null : median(rates.map((bps) => Math.abs(Math.log(bps / medianBps))));
  // 1.48 × MAD is the standard deviation where the noise is normal.
  return { medianBps, provenBps, provenBy, spread: off === null ? null : 1.48 * off };
}

function medianOf(runs: RunSet, field: 'addedDownMs' | 'addedUpMs' | 'resentShare'): number | null {
  const values: number[] = [];
  for (const { brief } of runs) {
    const value = brief?.[field] ?? null;
    if (value !== null) values.push(value);
  }
  return median(values);
}

const NO_FLAGS: readonly FitnessCode[] = [];
function flagsOf(runs: RunSet): readonly FitnessCode[] {
  const flags = new Set<FitnessCode>();
  for (const { brief } of runs) for (const flag of brief?.flags ?? NO_FLAGS) flags.add(flag);
  return flags.size === 0 ? NO_FLAGS : [...flags];
}

/** Rate of each peer's own port, as its newest run saw it; a practice line stands before no real port. */
function peerPortsOf(sets: readonly RunSet[]): ReadonlyMap<string, number> {
  const newest = new Map<string, { readonly bps: number; readonly atMs: number }>();
  for (const set of sets)
    for (const { peerId, peerLinkBps, practice, startedAtMs } of set)
      if (!practice && peerLinkBps !== null && (newest.get(peerId)?.atMs ?? -Infinity) <= startedAtMs)
        newest.set(peerId, { bps: peerLinkBps, atMs: startedAtMs });
  return new Map([...newest].map(([peerId, { bps }]) => [peerId, bps]));
}

/** A plain object, for there are tens of thousands of them: spreading takes twenty times as long. */
function occasionOf(runs: RunSet, segments: OfficeSegments, hourOf: (atMs: number) => number): Occasion {
  const newest = runs.at(-1)!;
  return {
    runIds: runs.map(({ id }) => id),
    deviceId: newest.deviceId,
    reach: newest.reach,
    startedAtMs: newest.startedAtMs,
    hour: hourOf(newest.startedAtMs),
    path: segments.pathOf(newest),
    down: rateOf(runs, 'down'),
    up: rateOf(runs, 'up'),
    addedDownMs: medianOf(runs, 'addedDownMs'),
    addedUpMs: medianOf(runs, 'addedUpMs'),
    resentShare: medianOf(runs, 'resentShare'),
    flags: flagsOf(runs),
  };
}

/** All that is known of an office that a diagnosis is made of, and what tells the path of a run that could be made. */
export interface OfficeEvidence extends DiagnosisInput {
  readonly office: OfficeSegments;
  /** IANA name; null: that of this machine. */
  readonly timeZone: string | null;
}

/** Of one office, what need not be worked out anew. */
interface Kept {
  readonly runs: KnownRuns;
  made: Made | null;
}

/** What was made of the sets, as long as what it hangs on is the same. */
interface Made {
  readonly of: string;
  readonly segments: OfficeSegments;
  /** Null: of a device that is not known any more, or without figures. */
  readonly occasions: WeakMap<RunSet, Occasion | null>;
}

const offices = new WeakMap<Store, Map<string, Kept>>();

function keptOf(store: Store, siteId: string): Kept {
  let kept = offices.get(store);
  if (kept === undefined) offices.set(store, (kept = new Map<string, Kept>()));
  let office = kept.get(siteId);
  if (office === undefined) kept.set(siteId, (office = { runs: new KnownRuns(store.evidence, siteId), made: null }));
  return office;
}

/** The occasions of the sets, and the segments on their paths; those made before, where nothing that they hang on changed. */
function occasionsOf(kept: Kept, { sets, generation }: OfficeRuns, facts: OfficeFacts, timeZone: string | null) {
  const { devices, peers, swaps, lines, plan, tunnelPlans, peerPorts } = facts;
  const of = JSON.stringify([
    ...[generation, timeZone, devices.map(({ id, name, link }) => [id, name, link])],
    ...[
      peers.map(({ id, name, reach, agentId }) => [id, name, reach, agentId]),
      swaps.map(({ segmentId, atMs }) => [segmentId, atMs]),
    ],
    ...[lines.map(({ id, name }) => [id, name]), plan, [...tunnelPlans], [...peerPorts]],
  ]);
  if (kept.made?.of !== of) kept.made = { of, segments: new OfficeSegments(facts), occasions: new WeakMap() };
  const { segments, occasions } = kept.made;
  const known = new Set(devices.map(({ id }) => id));
  const hourOf = hoursIn(timeZone);
  const all: Occasion[] = [];
  for (const set of sets) {
    let occasion = occasions.get(set);
    if (occasion === undefined) {
      const judged = set.filter(({ deviceId, brief }) => known.has(deviceId) && brief !== null);
      occasion = judged.length === 0 ? null : occasionOf(judged, segments, hourOf);
      occasions.set(set, occasion);
    }
    if (occasion !== null) all.push(occasion);
  }
  return { occasions: all, segments: segments.along(all.map(({ path }) => path)), hourOf };
}

export async function officeEvidence(context: ConsoleContext, siteId: string): Promise<OfficeEvidence> {
  const { store } = context;
  const { sites, findings } = store;
  const nowMs = context.wallMs();
  const freshFromMs = nowMs - EVIDENCE_MS;
  const kept = keptOf(store, siteId);
  const [site, devices, peers, swaps, lines, { plan }, runs, line, words] = await Promise.all([
    sites.byId(siteId),
    sites.devicesOf(siteId),
    sites.peersOf(siteId),
    findings.swapsOf(siteId),
    sites.linesOf(siteId),
    crossingOf(context, siteId, { reach: 'internet' }, nowMs),
    kept.runs.since(nowMs - HOURS_MS),
    sites.lineInUse(siteId, nowMs),
    keptWordsOf(context, siteId, freshFromMs),
  ]);
  const tunnels = peers.filter(({ reach }) => reach === 'tunnel');
  const tunnelPlans = new Map<string, Plan>();
  for (const { id, farSiteId } of tunnels) {
    const crossing = await crossingOf(context, siteId, { reach: 'tunnel', farSiteId }, nowMs);
    if (crossing.plan?.slowerEnd !== undefined) tunnelPlans.set(id, crossing.plan);
  }
  const peerPorts = peerPortsOf(runs.sets);
  const timeZone = site?.timeZone ?? null;
  const facts = { devices, peers, swaps, lines, plan, tunnelPlans, peerPorts };
  const { occasions, segments, hourOf } = occasionsOf(kept, runs, facts, timeZone);
  const outside =
    peers.find(({ reach, pinned }) => reach === 'internet' && pinned) ??
    peers.find(({ reach }) => reach === 'internet');
  const portBps = outside === undefined ? undefined : peerPorts.get(outside.id);
  const said = officeSaid(words, { devices, outside, line, occasions, segments, hourOf });
  return {
    ...{ occasions, said, freshFromMs },
    swaps: swaps.map((swap) => ({ ...swap, what: swap.what as SwapCode })),
    segments: segments.all,
    devices: devices.map(({ id, name, link }): DiagnosedDevice => {
      const cable = link.medium === 'wired' ? ceilingOfLink(link, 4) : null;
      return { id, name, cable, cableBps: link.medium === 'wired' ? link.negotiatedBps : null };
    }),
    plan,
    tunnelPlans: new Map([...tunnelPlans].map(([peerId, each]) => [`tunnel:${peerId}`, each])),
    outsidePeerBps: portBps === undefined ? null : ceilingOfLink({ ...PORT, negotiatedBps: portBps }, 4)!.payloadBps,
    generations: new Map(
      [...groupedBy(swaps, ({ segmentId }) => segmentId)].map(([base, of]) => [base, of.length] as const),
    ),
    ...{ office: segments, timeZone },
  };
}
