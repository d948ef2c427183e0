import type { RunRates, ShownRun } from '@/services';

/** A run that is heard of just now. */
export type LiveRun = Pick<RunRates, 'runId' | 'deviceId' | 'startedAtMs' | 'fromMs' | 'downBps' | 'upBps'>;
export type LiveRuns = ReadonlyMap<string, LiveRun>;

const SECOND_MS = 1000;
type Seconds = readonly (number | null)[];

/** Seconds as they were known, with those behind `from` as they are known now. */
const joined = (before: Seconds, now: Seconds, from: number): Seconds => [
  ...Array.from({ length: from }, (_, place) => before[place] ?? null),
  ...now,
];

/** What was heard of a run, with what is heard now: an upload is counted late, so the last seconds come again. */
export function withRates(before: LiveRuns, heard: LiveRun): LiveRuns {
  const known = before.get(heard.runId);
  const from = heard.fromMs / SECOND_MS;
  return new Map(before).set(heard.runId, {
    ...heard,
    fromMs: 0,
    downBps: joined(known?.downBps ?? [], heard.downBps, from),
    upBps: joined(known?.upBps ?? [], heard.upBps, from),
  });
}

/** The runs that were read, and those that are still only heard of. */
export function withLive(runs: readonly ShownRun[], live: LiveRuns): ShownRun[] {
  const heard = [...live.values()].filter(({ runId }) => !runs.some(({ id }) => id === runId));
  return [
    ...runs,
    ...heard.map(({ runId, deviceId, startedAtMs, fromMs, downBps, upBps }) => ({
      ...{ id: runId, deviceId, atMs: startedAtMs, downBps: null, upBps: null },
      seconds: { fromMs, downBps, upBps },
    })),
  ];
}

/** What runs moved at a moment, bits per second; null: none moved anything then that is known by the second. */
export function rateAt(
  runs: readonly ShownRun[],
  momentMs: number,
): { readonly downBps: number | null; readonly upBps: number | null } | null {
  for (const { atMs, seconds } of [...runs].reverse()) {
    if (seconds === null) continue;
    const place = Math.floor((momentMs - atMs - seconds.fromMs) / SECOND_MS);
    const [downBps, upBps] = [seconds.downBps[place] ?? null, seconds.upBps[place] ?? null];
    if (downBps !== null || upBps !== null) return { downBps, upBps };
  }
  return null;
}
