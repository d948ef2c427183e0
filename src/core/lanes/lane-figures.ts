import { percentileOfSorted } from '../stats/percentile';
import type { LaneEcho, LaneFigures } from './lane';
import { eachRequest, WAY_UNKNOWN, type LostByWay } from './packed-minute';

/** `times` in any order. Percentiles by linear interpolation, of those that were answered. */
function figuresOf(sent: number, times: Float64Array, { lostThere, lostBack }: LostByWay): LaneFigures {
  const sorted = times.sort();
  // No more are lost on their ways than are lost: what says so was not written by us.
  const fits = lostThere + lostBack <= sent - sorted.length;
  return {
    ...(fits ? { lostThere, lostBack } : WAY_UNKNOWN),
    ...{ sent, answered: sorted.length, minMs: sorted[0] ?? null, maxMs: sorted.at(-1) ?? null },
    medianMs: percentileOfSorted(sorted, 0.5),
    p95Ms: percentileOfSorted(sorted, 0.95),
  };
}

/** What a stretch of requests comes to. */
export function laneFigures(echoes: readonly Pick<LaneEcho, 'ms'>[], lost: LostByWay = WAY_UNKNOWN): LaneFigures {
  return figuresOf(echoes.length, Float64Array.from(echoes.flatMap(({ ms }) => (ms === null ? [] : [ms]))), lost);
}

/** What packed minutes come to together: a day of them has 86 400 requests, of which nothing is made but their times. */
export function figuresOfMinutes(minutes: readonly Uint8Array[]): LaneFigures {
  // A request takes two bytes at least.
  const times = new Float64Array(minutes.reduce((most, raw) => most + Math.ceil(raw.length / 2), 0));
  let [sent, answered, lostThere, lostBack] = [0, 0, 0, 0];
  for (const raw of minutes) {
    const lost = eachRequest(raw, (_, ms) => {
      sent += 1;
      if (ms !== null) times[answered++] = ms;
    });
    lostThere += lost.lostThere;
    lostBack += lost.lostBack;
  }
  return figuresOf(sent, times.subarray(0, answered), { lostThere, lostBack });
}
