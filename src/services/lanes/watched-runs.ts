import { rateSecondsOfSamples, type RateSeconds, type RunSeconds } from '@/core';
import type { Store, WatchedRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const HOUR_MS = 3600_000;
/** Up to this length of a span each run is shown second by second, */
const ALL_SECONDS_UP_TO_MS = HOUR_MS;
/** up to this one those that take minutes; in longer ones nothing would be seen of it. */
const LONG_SECONDS_UP_TO_MS = 12 * HOUR_MS;
/** Of the newest ones. */
const MOST_WITH_SECONDS = 60;
/** What a run moved in its seconds is kept at hand for so many, those read last. */
const MOST_AT_HAND = 200;

/** A run as a lane shows it. */
export interface ShownRun extends Pick<WatchedRun, 'id' | 'deviceId' | 'atMs' | 'downBps' | 'upBps'> {
  /** What it moved in each second; null: it is not shown so closely, or its samples are gone. */
  readonly seconds: RateSeconds | null;
}

const atHand = new WeakMap<Store, Map<string, RateSeconds | null>>();

/** What a finished run moved in each second, from its samples; null: there are none. */
async function secondsOf({ store }: ConsoleContext, runId: string): Promise<RateSeconds | null> {
  const known = atHand.get(store) ?? new Map<string, RateSeconds | null>();
  atHand.set(store, known);
  const before = known.get(runId);
  known.delete(runId);
  const samples = before === undefined ? await store.runs.samples(runId) : null;
  const seconds = before ?? (samples === null ? null : rateSecondsOfSamples(samples));
  known.set(runId, seconds);
  for (const oldest of known.keys()) {
    if (known.size <= MOST_AT_HAND) break;
    known.delete(oldest);
  }
  return seconds;
}

/** What is to be shown of runs beside the lanes of some machines, and which other devices have something to show. */
export interface RunsBeside {
  readonly runs: readonly ShownRun[];
  /** Devices that were measured for minutes, or are measured now, with their names. */
  readonly devices: ReadonlyMap<string, string>;
  /** Those that measure just now. */
  readonly measuring: ReadonlySet<string>;
}

export async function runsBeside(
  context: ConsoleContext,
  siteId: string,
  machines: readonly string[],
  { fromMs, untilMs }: { readonly fromMs: number; readonly untilMs: number },
): Promise<RunsBeside> {
  const { watchedRuns } = context.store;
  const spanMs = untilMs - fromMs;
  const [own, long] = await Promise.all([
    watchedRuns.ofDevices(machines, fromMs, untilMs),
    spanMs <= LONG_SECONDS_UP_TO_MS ? watchedRuns.longOf(siteId, fromMs, untilMs) : [],
  ]);
  const ended = long.filter(({ endedAtMs }) => endedAtMs !== null);
  const all = [...own.filter(({ id }) => !ended.some((run) => run.id === id)), ...ended];
  const close = new Set((spanMs <= ALL_SECONDS_UP_TO_MS ? all : ended).slice(-MOST_WITH_SECONDS).map(({ id }) => id));
  return {
    runs: await Promise.all(
      all.map(async ({ id, deviceId, atMs, downBps, upBps }) => ({
        ...{ id, deviceId, atMs, downBps, upBps },
        seconds: close.has(id) ? await secondsOf(context, id) : null,
      })),
    ),
    devices: new Map(long.map(({ deviceId, deviceName }) => [deviceId, deviceName])),
    measuring: new Set(long.filter(({ endedAtMs }) => endedAtMs === null).map(({ deviceId }) => deviceId)),
  };
}

/** A run of minutes that was under way beside something that was marked. */
export interface LongRun extends RunSeconds {
  readonly deviceName: string;
}

/** Runs of minutes of an office that touch a stretch of time, second by second. */
export async function longRunsBetween(
  context: ConsoleContext,
  siteId: string,
  fromMs: number,
  untilMs: number,
): Promise<LongRun[]> {
  const long = await context.store.watchedRuns.longOf(siteId, fromMs, untilMs);
  const read = await Promise.all(
    long.map(async ({ id, deviceName, atMs, endedAtMs }) => {
      const seconds = endedAtMs === null ? null : await secondsOf(context, id);
      return seconds === null ? [] : [{ ...seconds, deviceName, startedAtMs: atMs }];
    }),
  );
  return read.flat();
}
