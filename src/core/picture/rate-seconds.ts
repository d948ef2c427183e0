import type { RateBins } from '../measure/rate/rate-bins';
import { onRunClock, type RunSamples } from '../run/run-samples';
import { binsOf, type StripData } from './strip-data';

/**
 * Mean rates of whole seconds of a run, one after the other from `fromMs` on the run's clock (a multiple of 1000). Shapes: both
 * arrays [N], bits per second; null: nothing was moved that way in the second, or it is not known.
 */
export interface RateSeconds {
  readonly fromMs: number;
  readonly downBps: readonly (number | null)[];
  readonly upBps: readonly (number | null)[];
}

const SECOND_MS = 1000;
/** A strip of minutes is drawn coarser than what its seconds are taken from. */
const BIN_MS = 100;
/** A second of which less is known is not told. */
const LEAST_KNOWN_MS = 500;

/** The mean over each second of what is known in it. */
function perSecond(bins: RateBins | null, fromMs: number, seconds: number): (number | null)[] {
  const known = Array.from({ length: seconds }, () => 0);
  const sum = Array.from({ length: seconds }, () => 0);
  bins?.atMs.forEach((at, index) => {
    const end = at + bins.binMs;
    for (let place = Math.max(0, Math.floor((at - fromMs) / SECOND_MS)); place < seconds; place += 1) {
      const begin = fromMs + place * SECOND_MS;
      const ms = Math.min(end, begin + SECOND_MS) - Math.max(at, begin);
      if (ms <= 0) break;
      known[place]! += ms;
      sum[place]! += ms * bins.bps[index]!;
    }
  });
  return known.map((ms, place) => (ms < LEAST_KNOWN_MS ? null : Math.round(sum[place]! / ms)));
}

/** What a run moved in each second from `fromMs` on, up to the last that is over. */
export function rateSecondsOf(strip: Pick<StripData, 'durationMs' | 'down' | 'up'>, fromMs = 0): RateSeconds {
  const seconds = Math.max(0, Math.floor((strip.durationMs - fromMs) / SECOND_MS));
  return { fromMs, downBps: perSecond(strip.down, fromMs, seconds), upBps: perSecond(strip.up, fromMs, seconds) };
}

/** What a run that has ended moved in each of its seconds, from its samples. */
export function rateSecondsOfSamples(samples: RunSamples): RateSeconds {
  const { peerClockOffsetMs, download, bothDown, upload, bothUp, phases } = samples;
  return rateSecondsOf({
    durationMs: phases.at(-1)?.toMs ?? 0,
    down: binsOf([download, bothDown], BIN_MS),
    up: binsOf([onRunClock(upload, peerClockOffsetMs), onRunClock(bothUp, peerClockOffsetMs)], BIN_MS),
  });
}
