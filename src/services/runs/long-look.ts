import type { RateEstimate, CounterSeries, Reach, ProfileName, RunReport, RunSamples } from '@/core';
import type { Line, StoredRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const MONTH_MS = 30 * 24 * 3600_000;
/** Each direction of a long look lasts so long at least: longer than lines are fast only at first. */
export const LONG_LOOK_MS = 20_000;
/** What is measured of a line beyond the time for which it is fast at first, ms. */
const BEYOND_BURST_MS = 5000;
const MOST_MS = 30_000;

/** What decides how long a run over a line must last. */
export interface LookedAt {
  readonly profile: ProfileName;
  readonly reach: Reach;
  /** Runs that were asked for together, and runs over a practice line, say nothing about the line. */
  readonly alone: boolean;
  /** Whether the same device has just measured this line: nobody waits longer for his very first result. */
  readonly again: boolean;
}

/**
 * How long each direction must last at least, ms; 0: until it knows enough. Once a month a standard run over a line takes a long
 * look, to see whether the line is fast only at first; where it is, later ones last until beyond that.
 */
export function leastDirectionMs(
  { profile, reach, alone, again }: LookedAt,
  line: Pick<Line, 'longLookAtMs' | 'burstMs'> | null,
  nowMs: number,
): number {
  if (profile !== 'standard' || reach !== 'internet' || !alone || line === null) return 0;
  const seen = line.longLookAtMs !== null && nowMs - line.longLookAtMs < MONTH_MS;
  const beyond = line.burstMs === null ? 0 : Math.min(MOST_MS, line.burstMs + BEYOND_BURST_MS);
  return again && !seen ? Math.max(LONG_LOOK_MS, beyond) : beyond;
}

const lastedMs = (series: CounterSeries | null) => (series === null ? 0 : series.atMs.at(-1)! - series.atMs[0]!);

/** For how long a direction was faster than what it came to, from its first byte, ms; 0 for one that was not. */
function burstOf(rate: RateEstimate | null, series: CounterSeries | null): number {
  if (rate === null || series === null) return 0;
  const faster = (rate.earlier ?? []).filter(({ bps }) => bps > rate.steadyBps);
  return Math.max(0, ...faster.map(({ toMs }) => toMs - series.atMs[0]!));
}

/** Writes down what a finished run has shown of its line. */
export async function noteLook(
  { store }: ConsoleContext,
  run: StoredRun,
  { down, up }: Pick<RunReport, 'down' | 'up'>,
  { download, upload }: Pick<RunSamples, 'download' | 'upload'>,
): Promise<void> {
  if (run.lineId === null || run.reach !== 'internet' || run.practice || run.together !== null) return;
  const line = await store.sites.line(run.lineId);
  if (line === null) return;
  const burstMs = Math.max(burstOf(down.rate, download), burstOf(up.rate, upload));
  const long = Math.min(lastedMs(download), lastedMs(upload)) >= 0.95 * LONG_LOOK_MS;
  if (!long && burstMs === 0) return;
  await store.sites.saveLine({
    ...line,
    ...(long && { longLookAtMs: run.startedAtMs }),
    // Only a long look can say that there is none.
    burstMs: burstMs > 0 ? burstMs : null,
  });
}
