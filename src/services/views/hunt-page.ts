import {
  compareGroups,
  FOUND_FROM,
  linkKindOf,
  median,
  nextTests,
  questionOf,
  queueAdvice,
  seededRandom,
  segmentWords,
  SWAPS,
  swapsFor,
  suspicionOf,
  type ComparedRun,
  type DiagnosedSegment,
  type Direction,
  type GroupComparison,
  type LinkKind,
  type Occasion,
  type Outlook,
  type QueueAdvice,
  type QueueTrial,
  type Reach,
  type SoundRange,
  type Suspicion,
  type SwapCode,
  type WeighedTest,
} from '@/core';
import type { Device, StoredHunt, StoredHuntStep, StoredSwap } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { officeEvidence, type OfficeEvidence } from '../diagnosis/office-evidence';
import { shownFinding, type ShownFinding } from './stands-out';

/** A test that would tell something, in words that say what each outcome would mean. */
export interface ShownTest {
  readonly id: string;
  readonly kind: 'run' | 'swap';
  readonly deviceId: string;
  readonly deviceName: string;
  readonly linkKind: LinkKind;
  readonly reach: Reach;
  readonly minutes: number;
  /** Whether it can be started from here, without anybody going anywhere. */
  readonly byClick: boolean;
  readonly swap: SwapCode | null;
  readonly segment: DiagnosedSegment | null;
  readonly gainBits: number;
  readonly ifFast: readonly string[];
  readonly ifSlow: readonly string[];
}

export interface ShownSegment {
  readonly id: string;
  readonly words: string;
  readonly kind: DiagnosedSegment['kind'];
  readonly provenDownBps: number | null;
  readonly provenUpBps: number | null;
  /** The likelier of both directions, 0 to 1. */
  readonly suspicion: number;
}

export interface ShownSwap {
  readonly id: string;
  readonly what: SwapCode;
  readonly words: string;
  readonly note: string;
  readonly atMs: number;
  readonly byName: string;
  /** Runs of the same device and reach before and after it; null: none on one side. */
  readonly compared: {
    readonly direction: Direction;
    readonly beforeBps: number;
    readonly afterBps: number;
    readonly runsBefore: number;
    readonly runsAfter: number;
    readonly comparison: GroupComparison;
  } | null;
}

export type StoryLine =
  | { readonly kind: 'opened'; readonly atMs: number; readonly byName: string }
  | {
      readonly kind: 'run';
      readonly atMs: number;
      readonly runId: string;
      readonly deviceName: string;
      readonly reach: Reach;
      readonly downBps: number | null;
      readonly upBps: number | null;
      readonly soundBps: number | null;
    }
  | {
      readonly kind: 'swap';
      readonly atMs: number;
      readonly byName: string;
      readonly what: SwapCode;
      readonly words: string;
    }
  | { readonly kind: 'note'; readonly atMs: number; readonly byName: string; readonly text: string }
  | { readonly kind: 'queue-set'; readonly atMs: number; readonly byName: string; readonly bps: number }
  | {
      readonly kind: 'ended';
      readonly atMs: number;
      readonly byName: string;
      readonly state: string;
      readonly text: string;
    };

export interface HuntPage {
  readonly hunt: StoredHunt;
  readonly finding: ShownFinding | null;
  readonly focusDevice: string | null;
  readonly segments: readonly ShownSegment[];
  readonly story: readonly StoryLine[];
  readonly tests: readonly ShownTest[];
  /** What it is by now; more than one where no test can tell them apart. */
  readonly found: { readonly words: readonly string[]; readonly probability: number } | null;
  readonly swaps: readonly ShownSwap[];
  /** What can be swapped here: place and kinds. */
  readonly places: readonly {
    readonly segmentId: string;
    readonly words: string;
    readonly kinds: readonly SwapCode[];
    readonly deviceId: string | null;
  }[];
  readonly queue: QueueAdvice | null;
  /** Devices that stand by, for the runs of a queue's trial. */
  readonly standing: readonly { readonly id: string; readonly name: string }[];
  readonly nowMs: number;
}

const CLICK_MINUTES = 1;
const WALK_MINUTES = 3;
const MOST_STORY = 40;
/** Added delay below this is firm, ms. */
const FIRM_MS = 30;

const textOf = (value: unknown) => (typeof value === 'string' ? value : '');
const baseOf = (id: string) => id.replace(/[@~].*$/, '');

/** The direction that is worth hunting in: the one in which more is suspected. */
function directionOf(evidence: OfficeEvidence): { direction: Direction; suspicion: Suspicion } {
  const both = (['down', 'up'] as const).map((direction) => ({
    direction,
    suspicion: suspicionOf(
      evidence.segments,
      evidence.occasions.filter(({ startedAtMs }) => startedAtMs >= evidence.freshFromMs),
      direction,
    ),
  }));
  const weight = ({ suspicion }: (typeof both)[number]) => Math.max(0, ...suspicion.probability.values());
  return weight(both[1]!) > weight(both[0]!) + 0.05 ? both[1]! : both[0]!;
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
  readonly reaches: readonly { readonly reach: Reach; readonly peerId: string }[];
  readonly lineId: string | null;
}

function soundOf(
  path: readonly string[],
  segments: ReadonlyMap<string, DiagnosedSegment>,
  direction: Direction,
): SoundRange | null {
  const sounds = path.flatMap((id) => segments.get(id)?.sound[direction] ?? []);
  return sounds.length === 0
    ? null
    : {
        lowBps: Math.min(...sounds.map(({ lowBps }) => lowBps)),
        highBps: Math.min(...sounds.map(({ highBps }) => highBps)),
      };
}

/** Everything that could be tested here and now. */
function candidatesOf(
  { context, evidence, devices, reaches, lineId }: Situation,
  focus: Device | null,
  direction: Direction,
) {
  const nowMs = context.wallMs();
  const pathOf = (device: Device, { reach, peerId }: Situation['reaches'][number]) =>
    evidence.office.pathOf({
      ...{ deviceId: device.id, link: device.link, startedAtMs: nowMs, ipVersion: 4, reach, peerId },
      lineId: reach === 'local' ? null : lineId,
    });
  const runs = devices.flatMap((device) => reaches.map((reach) => ({ device, ...reach, path: pathOf(device, reach) })));
  const known = () => new Map(evidence.office.all.map((segment) => [segment.id, segment]));
  const asTest = (
    { device, reach, path }: Omit<(typeof runs)[number], 'peerId'>,
    swap: SwapCode | null,
    without: string | null,
  ) => {
    const standing = context.standing.isPresent(device.id);
    const run = standing ? CLICK_MINUTES : WALK_MINUTES;
    const left = path.filter((id) => id !== without);
    const sound = soundOf(left, known(), direction) ?? { lowBps: 450e6, highBps: 500e6 };
    return {
      ...{
        id: `${device.id} ${reach} ${swap ?? ''} ${without ?? ''}`,
        path: left,
        sound,
        device,
        reach,
        swap,
        without,
      },
      minutes: swap === null ? run : run + SWAPS[swap].minutes,
      byClick: standing && swap === null,
    };
  };
  const swaps = runs
    .filter(({ device, reach }) => device.id === focus?.id && reach !== 'tunnel')
    .flatMap((run) =>
      run.path.flatMap((id) =>
        swapsFor(known().get(id)?.kind ?? 'hop')
          .slice(0, 1)
          .map((swap) => asTest(run, swap, id)),
      ),
    );
  return [...runs.map((run) => asTest(run, null, null)), ...swaps];
}

function outlookWords({ suspects }: Outlook, segments: ReadonlyMap<string, DiagnosedSegment>): string[] {
  return suspects
    .filter(({ probability }) => probability >= 0.15)
    .flatMap(({ id }) => {
      const segment = segments.get(id);
      return segment === undefined ? [] : [segmentWords(segment)];
    });
}

function swapWords(swap: Pick<StoredSwap, 'segmentId'>, segments: ReadonlyMap<string, DiagnosedSegment>): string {
  const segment = [...segments.values()].find(({ id }) => baseOf(id) === swap.segmentId);
  return segment === undefined ? swap.segmentId : segmentWords(segment);
}

/** Before and after of a swap: the same device, over the same reach and kind of link. */
function comparedSwap(
  swap: StoredSwap,
  occasions: readonly Occasion[],
  deviceId: string | null,
): ShownSwap['compared'] {
  const touched = occasions.filter(
    (occasion) =>
      occasion.path.some((id) => baseOf(id) === swap.segmentId) &&
      (deviceId === null || occasion.deviceId === deviceId),
  );
  const [before, after] = [
    touched.filter(({ startedAtMs }) => startedAtMs < swap.atMs),
    touched.filter(({ startedAtMs }) => startedAtMs >= swap.atMs),
  ];
  const reach = after.at(-1)?.reach;
  const groups = (direction: Direction, of: readonly Occasion[]): ComparedRun[] =>
    of
      .filter((each) => each.reach === reach)
      .flatMap(({ runIds, [direction]: rate }) =>
        rate === null ? [] : [{ value: rate.medianBps, occasion: runIds[0]! }],
      );
  const both = (['down', 'up'] as const).flatMap((direction) => {
    const [a, b] = [groups(direction, before), groups(direction, after)];
    if (a.length === 0 || b.length === 0) return [];
    return [
      {
        direction,
        beforeBps: median(a.map(({ value }) => value))!,
        afterBps: median(b.map(({ value }) => value))!,
        ...{ runsBefore: a.length, runsAfter: b.length },
        comparison: compareGroups(a, b, 'rate', seededRandom(1)),
      },
    ];
  });
  const change = (each: (typeof both)[number]) => Math.abs(Math.log(each.afterBps / each.beforeBps));
  return both.sort((a, b) => change(b) - change(a))[0] ?? null;
}

function storyOf(
  hunt: StoredHunt,
  steps: readonly StoredHuntStep[],
  swaps: readonly ShownSwap[],
  evidence: OfficeEvidence,
  devices: readonly Device[],
  segments: ReadonlyMap<string, DiagnosedSegment>,
): StoryLine[] {
  const runs = evidence.occasions
    .filter(({ startedAtMs }) => startedAtMs >= hunt.openedAtMs && startedAtMs <= (hunt.closedAtMs ?? Infinity))
    .map((occasion): StoryLine => ({
      ...{ kind: 'run', atMs: occasion.startedAtMs, runId: occasion.runIds.at(-1)!, reach: occasion.reach },
      deviceName: devices.find(({ id }) => id === occasion.deviceId)?.name ?? '',
      downBps: occasion.down?.medianBps ?? null,
      upBps: occasion.up?.medianBps ?? null,
      soundBps: soundOf(occasion.path, segments, 'down')?.highBps ?? null,
    }));
  const written = steps.map((step): StoryLine =>
    step.kind === 'queue-set'
      ? { kind: 'queue-set', atMs: step.atMs, byName: step.byName, bps: Number(step.facts['bps']) }
      : { kind: 'note', atMs: step.atMs, byName: step.byName, text: textOf(step.facts['text']) },
  );
  const ended: StoryLine[] =
    hunt.closedAtMs === null
      ? []
      : [
          {
            ...{ kind: 'ended', atMs: hunt.closedAtMs, state: hunt.state },
            byName: textOf(hunt.outcome?.['byName']),
            text: textOf(hunt.outcome?.['note']),
          },
        ];
  return [
    { kind: 'opened', atMs: hunt.openedAtMs, byName: hunt.openedBy } as const,
    ...runs,
    ...swaps
      .filter(({ atMs }) => atMs >= hunt.openedAtMs)
      .map(({ atMs, byName, what, words }): StoryLine => ({ kind: 'swap', atMs, byName, what, words })),
    ...written,
    ...ended,
  ]
    .sort((a, b) => a.atMs - b.atMs)
    .slice(-MOST_STORY);
}

/** The trials of a queue's setting: each is measured from when it was set until the next. */
function trialsOf(
  hunt: StoredHunt,
  steps: readonly StoredHuntStep[],
  evidence: OfficeEvidence,
  direction: Direction,
): { trials: QueueTrial[]; steadyBps: number[] } {
  const sets = steps.filter(({ kind }) => kind === 'queue-set');
  const through = evidence.occasions.filter(
    ({ reach, [direction]: rate, path }) => reach === 'internet' && rate !== null && path[1]?.startsWith('cable:'),
  );
  const added = (occasion: Occasion) => (direction === 'up' ? occasion.addedUpMs : occasion.addedDownMs);
  const trials = sets.map((step, index): QueueTrial => {
    const until = sets[index + 1]?.atMs ?? Infinity;
    const of = through.filter(({ startedAtMs }) => startedAtMs >= step.atMs && startedAtMs < until);
    return {
      setBps: Number(step.facts['bps']),
      rates: of.flatMap(({ runIds, [direction]: rate }) => runIds.map(() => rate!.medianBps)),
      addedMs: of.flatMap((each) => each.runIds.map(() => added(each)).filter((ms) => ms !== null)),
    };
  });
  const before = sets[0]?.atMs ?? Infinity;
  return {
    trials,
    steadyBps: through
      .filter(({ startedAtMs }) => startedAtMs < Math.min(before, hunt.closedAtMs ?? Infinity))
      .sort((a, b) => b.startedAtMs - a.startedAtMs)
      .slice(0, 6)
      .map(({ [direction]: rate }) => rate!.medianBps),
  };
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
  const finding = of === undefined ? null : shownFinding(of, devices);
  const { direction, suspicion } = directionOf(evidence);
  const focus = focusOf(hunt, finding, devices, evidence);
  const reaches = (['local', 'internet', 'tunnel'] as const).flatMap((reach) => {
    const peer =
      peers.find((each) => each.reach === reach && each.pinned) ?? peers.find((each) => each.reach === reach);
    return peer === undefined ? [] : [{ reach, peerId: peer.id }];
  });
  const situation: Situation = { context, evidence, devices, reaches, lineId: line?.id ?? null };
  const candidates = candidatesOf(situation, focus, direction);
  const segments = new Map(evidence.office.all.map((segment) => [segment.id, segment]));
  const own = candidates.filter(({ device, swap }) => device.id === focus?.id && swap === null);
  const path = [...new Set([...own].sort((a, b) => b.path.length - a.path.length).flatMap((each) => each.path))];
  const measured = evidence.occasions.filter(({ deviceId }) => deviceId === focus?.id).flatMap((each) => each.path);
  const asked = [...new Set([...path, ...measured, ...(hunt.focus.segmentIds ?? [])])].filter((id) => segments.has(id));
  const question = questionOf(asked, candidates);
  const entangled = suspicion.entanglements.find(({ suspects }) => suspects.some((id) => asked.includes(id)));
  const tests = oncePerSwap(
    nextTests(entangled?.explanations ?? [], candidates, question, 12),
    new Map(candidates.map(({ id, swap, without }) => [id, swap === null ? id : `${swap} ${without}`])),
  );
  const byGroup = new Map<string, string[]>();
  for (const [id, group] of question) byGroup.set(group, [...(byGroup.get(group) ?? []), id]);
  const foundGroup = [...byGroup.values()]
    .map((ids) => ({ ids, probability: ids.reduce((sum, id) => sum + (suspicion.probability.get(id) ?? 0), 0) }))
    .sort((a, b) => b.probability - a.probability)[0];
  const shownSwaps = swaps.map((swap): ShownSwap => ({
    ...{ id: swap.id, what: swap.what as SwapCode, words: swapWords(swap, segments), note: swap.note },
    ...{ atMs: swap.atMs, byName: swap.byName, compared: comparedSwap(swap, evidence.occasions, swap.deviceId) },
  }));
  const shown = asked.flatMap((id): ShownSegment[] => {
    const segment = segments.get(id)!;
    return [
      {
        ...{ id, words: segmentWords(segment), kind: segment.kind },
        provenDownBps: suspicion.proofs.get(id)?.bps ?? null,
        provenUpBps: null,
        suspicion: Math.min(1, suspicion.probability.get(id) ?? 0),
      },
    ];
  });
  const { trials, steadyBps } = trialsOf(hunt, steps, evidence, queueDirection(of?.finding.facts));
  return done({
    ...{ hunt, finding, nowMs, segments: shown },
    focusDevice: focus?.name ?? null,
    story: storyOf(hunt, steps, shownSwaps, evidence, devices, segments),
    tests: tests.map(({ candidate, gainBits, ifFast, ifSlow }) => {
      const test = candidates.find(({ id }) => id === candidate.id)!;
      return {
        ...{ id: test.id, kind: test.swap === null ? 'run' : 'swap', reach: test.reach, swap: test.swap, gainBits },
        ...{ deviceId: test.device.id, deviceName: test.device.name, linkKind: linkKindOf(test.device.link) },
        ...{ minutes: test.minutes, byClick: test.byClick },
        segment: test.without === null ? null : (segments.get(test.without) ?? null),
        ifFast: outlookWords(ifFast, segments),
        ifSlow: outlookWords(ifSlow, segments),
      } satisfies ShownTest;
    }),
    found:
      foundGroup !== undefined && foundGroup.probability >= FOUND_FROM
        ? {
            words: foundGroup.ids.map((id) => segmentWords(segments.get(id)!)),
            probability: Math.min(1, foundGroup.probability),
          }
        : null,
    swaps: shownSwaps.filter(
      ({ atMs, id }) => atMs >= hunt.openedAtMs || swaps.find((swap) => swap.id === id)?.huntId === hunt.id,
    ),
    places: asked
      .map((id) => segments.get(id)!)
      .filter(({ kind }) => swapsFor(kind).length > 0)
      // What is suspected most is swapped first.
      .sort((a, b) => (suspicion.probability.get(b.id) ?? 0) - (suspicion.probability.get(a.id) ?? 0))
      .map((segment) => ({
        segmentId: baseOf(segment.id),
        words: segmentWords(segment),
        kinds: swapsFor(segment.kind),
        deviceId: segment.deviceId,
      })),
    queue: hunt.kind === 'queue' ? queueAdvice({ steadyBps, trials, firmBelowMs: FIRM_MS }) : null,
    // A cable shows the line's queue and not the air's.
    standing: devices
      .filter(({ id }) => context.standing.isPresent(id))
      .sort((a, b) => Number(b.link.medium === 'wired') - Number(a.link.medium === 'wired'))
      .map(({ id, name }) => ({ id, name })),
  });
}

const MOST_TESTS = 3;

/** A swap is proposed once, with the run that tells most after it. */
function oncePerSwap(tests: readonly WeighedTest[], nameOf: ReadonlyMap<string, string>): WeighedTest[] {
  const seen = new Set<string>();
  return tests
    .filter(({ candidate }) => {
      const name = nameOf.get(candidate.id)!;
      if (seen.has(name)) return false;
      seen.add(name);
      return true;
    })
    .slice(0, MOST_TESTS);
}

function queueDirection(facts: { readonly code: string; readonly direction?: Direction } | undefined): Direction {
  return facts?.direction ?? 'up';
}

/** Everything that can be swapped in an office, and what the swaps so far did. */
export interface SwapsPage {
  readonly siteId: string;
  readonly places: HuntPage['places'];
  readonly swaps: readonly ShownSwap[];
}

export async function swapsPageOf(context: ConsoleContext, siteId: string): Promise<SwapsPage> {
  const [evidence, swaps] = await Promise.all([
    officeEvidence(context, siteId),
    context.store.findings.swapsOf(siteId),
  ]);
  const segments = new Map(evidence.office.all.map((segment) => [segment.id, segment]));
  const places = new Map(
    [...segments.values()]
      .filter(({ kind }) => swapsFor(kind).length > 0)
      .map((segment) => [
        baseOf(segment.id),
        {
          segmentId: baseOf(segment.id),
          words: segmentWords(segment),
          kinds: swapsFor(segment.kind),
          deviceId: segment.deviceId,
        },
      ]),
  );
  return {
    siteId,
    places: [...places.values()].sort((a, b) => a.words.localeCompare(b.words)),
    swaps: swaps
      .map((swap) => ({
        ...{ id: swap.id, what: swap.what as SwapCode, words: swapWords(swap, segments), note: swap.note },
        ...{ atMs: swap.atMs, byName: swap.byName, compared: comparedSwap(swap, evidence.occasions, swap.deviceId) },
      }))
      .reverse(),
  };
}

export interface HuntLine {
  readonly id: string;
  readonly title: string;
  readonly state: StoredHunt['state'];
  readonly openedAtMs: number;
  readonly openedBy: string;
  readonly closedAtMs: number | null;
}

/** All hunts of an office, the open ones first. */
export async function huntsOf(context: ConsoleContext, siteId: string): Promise<HuntLine[]> {
  const hunts = await context.store.findings.huntsOf(siteId);
  const open = (state: string) => (state === 'open' ? 0 : 1);
  return hunts
    .sort((a, b) => open(a.state) - open(b.state) || b.openedAtMs - a.openedAtMs)
    .map(({ id, title, state, openedAtMs, openedBy, closedAtMs }) => ({
      ...{ id, title, state, openedAtMs, openedBy, closedAtMs },
    }));
}
