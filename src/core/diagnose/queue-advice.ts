import { median } from '../stats/percentile';

/** One setting of a queue that was tried: the rate it was set to, and what quick runs then gave. */
export interface QueueTrial {
  /** As a router counts: whole packets, bits per second. */
  readonly setBps: number;
  /** What was measured with it: bits per second, and what load added to the delay, ms. */
  readonly rates: readonly number[];
  readonly addedMs: readonly number[];
}

export interface QueueAdviceInput {
  /** Steady rates of the last sets without any setting, bits per second of TCP payload. */
  readonly steadyBps: readonly number[];
  readonly trials: readonly QueueTrial[];
  /** Added delay below this is firm, ms. */
  readonly firmBelowMs: number;
}

export type QueueAdvice =
  /** The next figure to set, and why. */
  | { readonly status: 'set'; readonly bps: number; readonly step: number }
  /** That trial wants its runs. */
  | { readonly status: 'measure'; readonly bps: number; readonly wanted: number }
  /** The highest rate at which added delay stays firm. */
  | { readonly status: 'done'; readonly bps: number; readonly addedMs: number; readonly costsShare: number }
  /** Even the lowest figure did not help: the queue is somewhere else. */
  | { readonly status: 'no-help' }
  /** The line's own rate swings too much for a fixed figure, as a share of its median. */
  | { readonly status: 'swings'; readonly share: number };

export const RUNS_OF_A_TRIAL = 3;
const BEGIN_AT = 0.9;
/** A router's queue counts whole packets, a run their payload: 1448 of 1500 bytes (IPv4, TCP with timestamps; RFC 7323). */
const PACKETS_OF_PAYLOAD = 1500 / 1448;
/** Below this share of the rate something else is wrong. */
const LEAST_SHARE = 0.5;
/** The search ends when so little is left to win, or after so many steps. */
const NEAR = 0.03;
const MOST_STEPS = 6;
/** A line whose lowest set lies so far below its highest cannot be held by one figure. */
const MOST_SWING = 0.3;

interface Tried {
  readonly setBps: number;
  readonly firm: boolean;
  readonly addedMs: number;
  /** What came through, bits per second of payload. */
  readonly gaveBps: number;
}

function triedOf({ trials, firmBelowMs }: QueueAdviceInput): Tried[] {
  return trials
    .filter(({ addedMs }) => addedMs.length >= RUNS_OF_A_TRIAL)
    .map(({ setBps, addedMs, rates }) => ({
      setBps,
      gaveBps: median(rates) ?? setBps / PACKETS_OF_PAYLOAD,
      addedMs: median(addedMs)!,
      firm: median(addedMs)! < firmBelowMs,
    }));
}

/**
 * Which rate to set a queue's management to: begins at nine tenths of the lowest steady rate, in whole packets, then
 * halves what lies between the highest figure at which delay stayed firm and the lowest at which it did not, or what the
 * line gave at most. Null: nothing was measured.
 */
export function queueAdvice(input: QueueAdviceInput): QueueAdvice | null {
  const { steadyBps, trials } = input;
  const lowestBps = steadyBps.length === 0 ? null : Math.min(...steadyBps);
  if (lowestBps === null) return null;
  const highestBps = Math.max(...steadyBps);
  const [lineBps, mostBps] = [PACKETS_OF_PAYLOAD * lowestBps, PACKETS_OF_PAYLOAD * highestBps];
  const swing = 1 - lowestBps / highestBps;
  if (swing > MOST_SWING) return { status: 'swings', share: swing };
  const unmeasured = trials.find(({ addedMs }) => addedMs.length < RUNS_OF_A_TRIAL);
  if (unmeasured !== undefined)
    return { status: 'measure', bps: unmeasured.setBps, wanted: RUNS_OF_A_TRIAL - unmeasured.addedMs.length };
  const tried = triedOf(input);
  if (tried.length === 0) return { status: 'set', bps: BEGIN_AT * lineBps, step: 1 };
  const firm = tried.filter((each) => each.firm);
  const loose = tried.filter((each) => !each.firm);
  const best = firm.reduce<Tried | null>(
    (most, each) => (most === null || each.setBps > most.setBps ? each : most),
    null,
  );
  // Nothing above what the line ever gave can hold its queue; below that the trials tell, for a line may swing.
  const ceiling = Math.min(mostBps, ...loose.map(({ setBps }) => setBps));
  const done = (): QueueAdvice =>
    best === null
      ? { status: 'no-help' }
      : {
          status: 'done',
          bps: best.setBps,
          addedMs: best.addedMs,
          costsShare: Math.max(0, 1 - best.gaveBps / median(steadyBps)!),
        };
  if (tried.length >= MOST_STEPS) return done();
  if (best === null) {
    const next = ceiling * 0.85;
    return next < LEAST_SHARE * lineBps ? { status: 'no-help' } : { status: 'set', bps: next, step: tried.length + 1 };
  }
  if (1 - best.setBps / ceiling <= NEAR) return done();
  return { status: 'set', bps: (best.setBps + ceiling) / 2, step: tried.length + 1 };
}
