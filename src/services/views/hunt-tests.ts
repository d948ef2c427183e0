import {
  linkKindOf,
  nextTests,
  segmentWords,
  soundOf,
  SWAPS,
  swapsFor,
  type DiagnosedSegment,
  type Direction,
  type HuntQuestion,
  type LinkKind,
  type NamedExplanation,
  type Outlook,
  type Reach,
  type SwapCode,
  type TestCandidate,
  type WeighedTest,
} from '@/core';
import type { Device } from '@/store';

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

/** A run that could be made, and the segments on its way. */
export interface PossibleRun {
  readonly device: Device;
  readonly reach: Reach;
  readonly path: readonly string[];
  /** Whether the device stands by. */
  readonly byClick: boolean;
}

export interface Candidate extends TestCandidate {
  readonly run: PossibleRun;
  readonly swap: SwapCode | null;
  /** The segment that the swap takes out of the way. */
  readonly without: string | null;
}

const CLICK_MINUTES = 1;
const WALK_MINUTES = 3;
const MOST_TESTS = 3;
/** So many are weighed, for of one swap only the run that tells most is shown. */
const MOST_WEIGHED = 12;
/** What is less likely than this to hold back is not taken out of the way. */
const WORTH_SWAPPING = 0.02;
/** What is less likely after an outcome is not named. */
const NAMED_FROM = 0.15;

/** A run, alone or after a swap; none where nothing is known of what its way should carry, for then it tells nothing. */
function asTest(
  run: PossibleRun,
  after: { readonly swap: SwapCode; readonly without: string } | null,
  segments: ReadonlyMap<string, DiagnosedSegment>,
  direction: Direction,
): Candidate[] {
  const path = run.path.filter((id) => id !== after?.without);
  // What is put in its place carries as much while it is sound.
  const sound = soundOf(run.path, segments, direction);
  if (sound === null) return [];
  const minutes = (run.byClick ? CLICK_MINUTES : WALK_MINUTES) + (after === null ? 0 : SWAPS[after.swap].minutes);
  const [swap, without] = [after?.swap ?? null, after?.without ?? null];
  const id = [run.device.id, run.reach, swap, without].join(' ');
  return [{ id, path, sound, minutes, run, swap, without }];
}

/** Everything that could be tested here and now: each run, and of the focused device each also after a swap. */
export function candidatesOf(
  runs: readonly PossibleRun[],
  focusId: string | null,
  segments: ReadonlyMap<string, DiagnosedSegment>,
  direction: Direction,
  suspected: (id: string) => number,
): Candidate[] {
  const swaps = runs
    .filter(({ device, reach }) => device.id === focusId && reach !== 'tunnel')
    .flatMap((run) =>
      run.path.flatMap((without) => {
        // Without what is cleared a run tells the same as with it.
        if (suspected(without) < WORTH_SWAPPING) return [];
        const [swap] = swapsFor(segments.get(without)?.kind ?? 'hop');
        return swap === undefined ? [] : asTest(run, { swap, without }, segments, direction);
      }),
    );
  return [...runs.flatMap((run) => asTest(run, null, segments, direction)), ...swaps];
}

/** A swap is proposed once, with the run that tells most after it. */
function oncePerSwap(tests: readonly WeighedTest<Candidate>[]): WeighedTest<Candidate>[] {
  const seen = new Set<string>();
  return tests
    .filter(({ candidate: { id, swap, without } }) => {
      const name = swap === null ? id : `${swap} ${without}`;
      if (seen.has(name)) return false;
      seen.add(name);
      return true;
    })
    .slice(0, MOST_TESTS);
}

function outlookWords({ suspects }: Outlook, segments: ReadonlyMap<string, DiagnosedSegment>): string[] {
  return suspects
    .filter(({ probability }) => probability >= NAMED_FROM)
    .flatMap(({ id }) => {
      const segment = segments.get(id);
      return segment === undefined ? [] : [segmentWords(segment)];
    });
}

/** The tests that would tell most for their minutes. */
export function shownTests(
  explanations: readonly NamedExplanation[],
  candidates: readonly Candidate[],
  question: HuntQuestion,
  segments: ReadonlyMap<string, DiagnosedSegment>,
): ShownTest[] {
  return oncePerSwap(nextTests(explanations, candidates, question, MOST_WEIGHED)).map(
    ({ candidate: { id, run, swap, without, minutes }, gainBits, ifFast, ifSlow }) => ({
      ...{ id, kind: swap === null ? 'run' : 'swap', reach: run.reach, swap, gainBits, minutes },
      ...{ deviceId: run.device.id, deviceName: run.device.name, linkKind: linkKindOf(run.device.link) },
      byClick: run.byClick && swap === null,
      segment: without === null ? null : (segments.get(without) ?? null),
      ifFast: outlookWords(ifFast, segments),
      ifSlow: outlookWords(ifSlow, segments),
    }),
  );
}
