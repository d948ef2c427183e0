import type { Direction } from '../domain/plan';
import type { DiagnosisInput } from './diagnosis-input';
import type { Finding } from './finding';
import type { Occasion } from './observation';
import { classesOf, freshOf, type ClassOfOccasions } from './proof';
import { segmentBase, type DiagnosedSegment } from './segment';
import { slowHoursOf, type SlowHours } from '../over-time/slow-hours';
import { madeOnce } from '../stats/made-once';
import { suspicionOf, type Suspicion } from './suspicion';

/** With the segment of the slow hours behind the line, where it lies in them. */
function throughHours<Of extends { readonly path: readonly string[]; readonly hour: number }>(
  of: Of,
  lineId: string,
  { id, hours }: DiagnosedSegment,
): Of {
  if (!hours!.includes(of.hour) || !of.path.includes(lineId)) return of;
  return { ...of, path: of.path.flatMap((each) => (each === lineId ? [each, id] : [each])) };
}

interface ToldHours {
  readonly told: readonly Occasion[];
  readonly slow: SlowHours | null;
}
const hoursOnce = madeOnce<ClassOfOccasions, ToldHours>();

function hoursOf(of: ClassOfOccasions, direction: Direction): ToldHours {
  // What others took then is not the line's.
  const told = of.filter(({ [direction]: rate, flags }) => rate !== null && !flags.includes('line-in-use'));
  const rates = told.map(({ hour, runIds, [direction]: rate }) => ({
    ...{ hour, bps: rate!.medianBps, occasion: runIds[0]! },
  }));
  return { told, slow: slowHoursOf(rates) };
}

const partedOnce = madeOnce<Occasion, Occasion>();

/** The hours in which the line sags, and its occasions marked with a segment of those hours. */
function partHours(input: DiagnosisInput, direction: Direction) {
  const line = input.segments.findLast(({ kind }) => kind === 'line');
  if (line === undefined) return { input, finding: null };
  // Held within one device and link at a time: another device at another hour is no sag.
  const classes = [...classesOf(input.occasions).values()]
    .filter(([first]) => first!.reach === 'internet' && first!.path.includes(line.id))
    .map((of) => hoursOnce(of, direction, () => hoursOf(of, direction)))
    .filter(({ told }) => told.length > 0)
    .sort((a, b) => b.told.length - a.told.length);
  for (const { told: of, slow } of classes) {
    if (slow === null) continue;
    const id = `${line.id} in hours`;
    const inHours: DiagnosedSegment = { ...line, id, kind: 'line-in-hours', hours: slow.hours };
    const slowRuns = of.filter(({ hour }) => slow.hours.includes(hour));
    const deviceIds = [...new Set(classes.map(({ told }) => told[0]!.deviceId))];
    const finding: Finding = {
      key: `line-slow-in-hours ${direction} ${segmentBase(line.id)}`,
      facts: {
        code: 'line-slow-in-hours',
        ...{ bps: slow.bps, elseBps: slow.elseBps, occasions: slow.occasions, direction, plan: input.plan },
      },
      strength: 'found',
      ...{ segments: [line], hours: slow.hours, deviceIds },
      sinceMs: Math.min(...slowRuns.map(({ startedAtMs }) => startedAtMs)),
      evidence: {
        for: slowRuns.flatMap(({ runIds }) => runIds),
        against: of.filter(({ hour }) => !slow.hours.includes(hour)).flatMap(({ runIds }) => runIds),
      },
      weight: (deviceIds.length * (1 - slow.bps / slow.elseBps) * slow.hours.length) / 8,
    };
    return {
      finding,
      input: {
        ...input,
        segments: [...input.segments, inHours],
        occasions: input.occasions.map((each) =>
          partedOnce(each, `${id} ${slow.hours.join(' ')}`, () => throughHours(each, line.id, inHours)),
        ),
        said: { ...input.said, complaints: input.said.complaints.map((each) => throughHours(each, line.id, inHours)) },
      },
    };
  }
  return { input, finding: null };
}

/** What is thought of each segment in one direction, the line's slow hours held apart, and what they are. */
export interface PartedSuspicion {
  readonly suspicion: Suspicion;
  /** With a segment of its own for the line in its slow hours, where there are any. */
  readonly input: DiagnosisInput;
  readonly sag: Finding | null;
}

/** Weeks tell the hours; only fresh occasions are weighed, `wholeFresh` where no hours are parted. */
export function partedSuspicion(
  whole: DiagnosisInput,
  wholeFresh: readonly Occasion[],
  direction: Direction,
): PartedSuspicion {
  const { input, finding } = partHours(whole, direction);
  const occasions = finding === null ? wholeFresh : freshOf(input.occasions, whole.freshFromMs);
  const fresh = { ...input, occasions };
  return { suspicion: suspicionOf(fresh.segments, fresh.occasions, direction, input.said), input: fresh, sag: finding };
}
