import {
  groupedBy,
  median,
  queueAdvice,
  type Direction,
  type Occasion,
  type QueueAdvice,
  type QueueTrial,
} from '@/core';
import type { StoredHunt, StoredHuntStep } from '@/store';

/** Added delay below this is firm, ms. */
const FIRM_MS = 30;
/** What the line gives without any setting is told by so many of its last sets. */
const MOST_STEADY = 6;

/** The advice of a queue's hunt: each setting is measured from when it was set until the next. Null: nothing measured. */
export function huntedQueue(
  hunt: StoredHunt,
  steps: readonly StoredHuntStep[],
  occasions: readonly Occasion[],
  direction: Direction,
): QueueAdvice | null {
  const sets = steps.filter(({ kind }) => kind === 'queue-set');
  // A cable shows the line's queue and not the air's.
  const through = occasions.filter(
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
  const before = Math.min(sets[0]?.atMs ?? Infinity, hunt.closedAtMs ?? Infinity);
  const untouched = [...through]
    .filter(({ startedAtMs }) => startedAtMs < before)
    .sort((a, b) => b.startedAtMs - a.startedAtMs);
  // A device that its own cable holds back speaks for itself: the one to which the line gives most speaks for the line.
  const byDevice = [...groupedBy(untouched, ({ deviceId }) => deviceId).values()].map((of) =>
    of.slice(0, MOST_STEADY).map(({ [direction]: rate }) => rate!.medianBps),
  );
  const steadyBps = byDevice.reduce<readonly number[]>(
    (most, of) => ((median(of) ?? 0) > (median(most) ?? 0) ? of : most),
    [],
  );
  return queueAdvice({ steadyBps, trials, firmBelowMs: FIRM_MS });
}
