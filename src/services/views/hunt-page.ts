import {
  FOUND_FROM,
  groupedBy,
  partedSuspicion,
  PEER_REACHES,
  questionOf,
  segmentBase,
  segmentWords,
  standingIds,
  type DiagnosedSegment,
  type DiagnosisInput,
  type Direction,
  type PartedSuspicion,
  type QueueAdvice,
  type StoryLine,
} from '@/core';
import type { Device, StoredHunt, StoredPeer } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { officeEvidence, type OfficeEvidence } from '../diagnosis/office-evidence';
import { hourAt } from '../diagnosis/office-hours';
import { checksOf, type ShownCheck } from './hunt-checks';
import { storyOf } from './hunt-story';
import { candidatesOf, shownTests, type PossibleRun, type ShownTest } from './hunt-tests';
import { huntedQueue } from './queue-trials';
import { shownFinding, type ShownFinding } from './stands-out';
import { placesOf, shownSwaps, type ShownSwap, type SwapPlace } from './swaps-page';

export interface ShownSegment {
  readonly id: string;
  readonly words: string;
  readonly kind: DiagnosedSegment['kind'];
  /** What it is proven to have carried in the direction of the hunt, bits per second; null: nothing yet. */
  readonly provenBps: number | null;
  /** How likely it is to hold back in that direction, 0 to 1. */
  readonly suspicion: number;
}

export interface HuntPage {
  readonly hunt: StoredHunt;
  readonly finding: ShownFinding | null;
  readonly focusDevice: string | null;
  /** The direction in which more is suspected: proofs, suspicions and tests are of this one. */
  readonly direction: Direction;
  readonly segments: readonly ShownSegment[];
  readonly story: readonly StoryLine[];
  readonly tests: readonly ShownTest[];
  /** What it is by now; more than one where no test can tell them apart. */
  readonly found: { readonly words: readonly string[]; readonly probability: number } | null;
  readonly swaps: readonly ShownSwap[];
  /** What can be swapped on this way, the most suspected first. */
  readonly places: readonly SwapPlace[];
  readonly queue: QueueAdvice | null;
  /** What can be ruled out by looking, before anything is measured. */
  readonly checks: readonly ShownCheck[];
  /** Devices that stand by, for the runs of a queue's trial. */
  readonly standing: readonly { readonly id: string; readonly name: string }[];
  readonly nowMs: number;
}

/** The upload is hunted only where clearly more is suspected in it. */
const CLEARLY_MORE = 0.05;
/** What is less likely than this is not among what was found, though no test tells it apart. */
const AMONG_FOUND = 0.05;

/** The direction that is worth hunting in: the one in which more is suspected. */
function directionOf(evidence: DiagnosisInput): PartedSuspicion & { readonly direction: Direction } {
  const fresh = evidence.occasions.filter(({ startedAtMs }) => startedAtMs >= evidence.freshFromMs);
  const of = (direction: Direction) => ({ direction, ...partedSuspicion(evidence, fresh, direction) });
  const [down, up] = [of('down'), of('up')];
  const weight = ({ suspicion }: PartedSuspicion) => Math.max(0, ...suspicion.probability.values());
  return weight(up) > weight(down) + CLEARLY_MORE ? up : down;
}

/** Whose path is hunted on: the device of the focus, else one of those that suffer. */
function focusOf(hunt: StoredHunt, finding: ShownFinding | null, devices: readonly Device[], evidence: OfficeEvidence) {
  const own = devices.find(({ id }) => id === hunt.focus.deviceId);
  if (own !== undefined) return own;
  const named = devices.find(({ name }) => finding?.devices.includes(name));
  if (named !== undefined) return named;
  const newest = [...evidence.occasions].sort((a, b) => b.startedAtMs - a.startedAtMs)[0];
  return devices.find(({ id }) => id === newest?.deviceId) ?? null;
}

interface Situation {
  readonly context: ConsoleContext;
  readonly evidence: OfficeEvidence;
  readonly devices: readonly Device[];
  readonly peers: readonly StoredPeer[];
  readonly lineId: string | null;
}

/** Each run that could be made now, to one peer per reach. */
function possibleRuns({ context, evidence, devices, peers, lineId }: Situation): PossibleRun[] {
  const reaches = PEER_REACHES.flatMap((reach) => {
    const of = peers.filter((peer) => peer.reach === reach);
    const peer = of.find(({ pinned }) => pinned) ?? of[0];
    return peer === undefined ? [] : [{ reach, peerId: peer.id }];
  });
  const startedAtMs = context.wallMs();
  return devices.flatMap((device) =>
    reaches.map(({ reach, peerId }) => ({
      ...{ device, reach, byClick: context.standing.isPresent(device.id) },
      path: evidence.office.pathOf({
        ...{ deviceId: device.id, link: device.link, startedAtMs, ipVersion: 4, reach, peerId },
        lineId: reach === 'local' ? null : lineId,
      }),
    })),
  );
}

/** In the line's slow hours a run that is made now goes through them. */
function withHours(runs: readonly PossibleRun[], segments: readonly DiagnosedSegment[], hour: number): PossibleRun[] {
  const slow = segments.find(({ kind, hours }) => kind === 'line-in-hours' && hours?.includes(hour));
  if (slow === undefined) return [...runs];
  return runs.map((run) => ({
    ...run,
    path: run.path.flatMap((id) => (slow.id === `${id} in hours` ? [id, slow.id] : [id])),
  }));
}

/** A hunt as both technicians see it: what is suspected, the story so far, and the tests that would tell most. */
export async function huntPageOf(context: ConsoleContext, huntId: string): Promise<Outcome<HuntPage, 'hunt-unknown'>> {
  const { findings, sites } = context.store;
  const hunt = await findings.hunt(huntId);
  if (hunt === null || (await sites.byId(hunt.siteId)) === null) return failed('hunt-unknown');
  const nowMs = context.wallMs();
  const [evidence, devices, peers, steps, swaps, stored, line] = await Promise.all([
    officeEvidence(context, hunt.siteId),
    sites.devicesOf(hunt.siteId),
    sites.peersOf(hunt.siteId),
    findings.stepsOf(huntId),
    findings.swapsOf(hunt.siteId),
    findings.findingsOf(hunt.siteId),
    sites.lineInUse(hunt.siteId, nowMs),
  ]);
  const of = stored.find(({ findingKey }) => findingKey === hunt.focus.findingKey);
  const finding = of === undefined ? null : shownFinding(of, of.finding, devices);
  const focus = focusOf(hunt, finding, devices, evidence);
  const { direction, suspicion, input } = directionOf(evidence);
  const runs = withHours(
    possibleRuns({ context, evidence, devices, peers, lineId: line?.id ?? null }),
    input.segments,
    hourAt(nowMs, evidence.timeZone),
  );
  // A part that nothing was measured through yet is known by the runs that could be made.
  const segments = new Map([...evidence.office.all, ...input.segments].map((segment) => [segment.id, segment]));
  const suspected = (id: string) => Math.min(1, suspicion.probability.get(id) ?? 0);
  const candidates = candidatesOf(runs, focus?.id ?? null, segments, direction, suspected);

  const now = standingIds({ ...evidence, segments: evidence.office.all });
  const own = runs.filter(({ device }) => device.id === focus?.id).sort((a, b) => b.path.length - a.path.length);
  const measured = input.occasions.filter(({ deviceId }) => deviceId === focus?.id);
  const way = own.flatMap(({ path }) => path);
  const bases = new Set(way.map(segmentBase));
  const stands = (id: string) =>
    segments.get(id)?.kind === 'line-in-hours' || (now.has(id) && !bases.has(segmentBase(id)));
  const others = [...measured.flatMap(({ path }) => path), ...(hunt.focus.segmentIds ?? [])];
  const asked = [...new Set([...way, ...others.filter(stands)])];
  const question = questionOf(asked, candidates);
  const entangled = suspicion.entanglements.find(({ suspects }) => suspects.some((id) => asked.includes(id)));
  const [found] = [...groupedBy(question, ([, group]) => group).values()]
    .map((group) => group.map(([id]) => id).filter((id) => suspected(id) >= AMONG_FOUND))
    .map((ids) => ({
      ids,
      probability: Math.min(
        1,
        ids.reduce((sum, id) => sum + suspected(id), 0),
      ),
    }))
    .sort((a, b) => b.probability - a.probability);

  const shown = shownSwaps(swaps, [...segments.values()], evidence.occasions, devices);
  const facts = of?.finding.facts;
  const queueDirection = facts?.code === 'queue-too-deep' ? facts.direction : 'up';
  return done({
    ...{ hunt, finding, nowMs, direction },
    focusDevice: focus?.name ?? null,
    segments: asked.map((id) => ({
      ...{ id, words: segmentWords(segments.get(id)!), kind: segments.get(id)!.kind },
      ...{ provenBps: suspicion.proofs.get(id)?.bps ?? null, suspicion: suspected(id) },
    })),
    story: storyOf({ hunt, steps, swaps: shown, occasions: evidence.occasions, devices, segments }),
    tests: shownTests(entangled?.explanations ?? [], candidates, question, segments),
    found:
      found === undefined || found.probability < FOUND_FROM
        ? null
        : { words: found.ids.map((id) => segmentWords(segments.get(id)!)), probability: found.probability },
    swaps: shown.filter(
      ({ atMs, id }) => atMs >= hunt.openedAtMs || swaps.find((swap) => swap.id === id)?.huntId === hunt.id,
    ),
    places: placesOf([...asked].sort((a, b) => suspected(b) - suspected(a)).map((id) => segments.get(id)!)),
    checks: await checksOf(context, hunt, steps, focus),
    queue: hunt.kind === 'queue' ? huntedQueue(hunt, steps, evidence.occasions, queueDirection) : null,
    // A cable shows the line's queue and not the air's.
    standing: devices
      .filter(({ id }) => context.standing.isPresent(id))
      .sort((a, b) => Number(b.link.medium === 'wired') - Number(a.link.medium === 'wired'))
      .map(({ id, name }) => ({ id, name })),
  });
}
