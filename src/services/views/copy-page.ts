import { copyRates, overTimeOfColumn, shareRateBps, type CopyRates, type Direction } from '@/core';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { timeSeriesOf, type TimeSeries } from './time-series';
import { readSubject, timeSubjectsOf, type ShownSubject } from './time-subjects';

/** By so many days back a copy is reckoned. */
export const COPY_DAYS = 30;
const DAY_MS = 24 * 3600_000;

/** What a store gave (`down`) and took (`up`), bits per second; null: not known. */
export interface CopyStore {
  readonly folder: string;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly atMs: number;
}

async function storeOf({ store }: ConsoleContext, key: string): Promise<CopyStore | null> {
  const subject = readSubject(key);
  if (subject === null || 'lineId' in subject) return null;
  const look = await store.looks.newestFound(subject.deviceId, 'share');
  if (look?.outcome?.ok !== true || look.outcome.found.what !== 'share') return null;
  const { folder, written, read, place } = look.outcome.found;
  if (place !== 'network') return null;
  return {
    ...{ folder, atMs: look.askedAtMs, upBps: shareRateBps(written) },
    downBps: read === null ? null : shareRateBps(read),
  };
}

/** From where a copy can go, and the rates of the one that was chosen. */
export interface CopyPage {
  readonly subjects: readonly ShownSubject[];
  /** Null: nothing was measured yet. */
  readonly chosen: {
    readonly subject: ShownSubject;
    readonly down: CopyRates;
    readonly up: CopyRates;
    /** Hours of the day in which it is slow, from 0 to 23, by direction; empty: none are. */
    readonly slowHours: Readonly<Record<Direction, readonly number[]>>;
    /** The share that the device looked at last; null: none. */
    readonly store: CopyStore | null;
  } | null;
}

/** The rates that were measured here: a file does not say with how many connections its figures were made. */
const measuredHere = ({ occasions }: TimeSeries, direction: Direction) =>
  occasions[direction].map((bps, place) => (occasions.fromFile[place] ? null : bps));

const slowOf = (series: TimeSeries, direction: Direction) =>
  overTimeOfColumn(series.occasions, measuredHere(series, direction), direction).shown.slowHours;

const measured = (values: readonly (number | null)[]) =>
  values.flatMap((value) => (value === null || value <= 0 ? [] : [value]));

/** What a copy over a way takes: by what was measured there in the last thirty days. */
export async function copyPageOf(
  context: ConsoleContext,
  siteId: string,
  asked: string | undefined,
): Promise<Outcome<CopyPage, 'site-missing' | 'subject-unknown'>> {
  const nowMs = context.wallMs();
  const subjects = (await timeSubjectsOf(context, siteId)).filter(({ kind }) => kind === 'device');
  const subject = asked === undefined ? subjects[0] : subjects.find(({ key }) => key === asked);
  if (subject === undefined) return asked === undefined ? done({ subjects, chosen: null }) : failed('subject-unknown');
  const fromMs = nowMs - COPY_DAYS * DAY_MS;
  const series = await timeSeriesOf(context, siteId, subject.key, { fromMs, untilMs: Infinity });
  if (!series.ok) return series;
  const singles = await context.store.time.singles(siteId, readSubject(subject.key)!, fromMs);
  const slow = { down: slowOf(series.value, 'down'), up: slowOf(series.value, 'up') };
  const of = (direction: Direction) =>
    copyRates(
      measured(singles.map((run) => run[direction])),
      measured(measuredHere(series.value, direction)),
      slow[direction],
    );
  return done({
    subjects,
    chosen: {
      ...{ subject, down: of('down'), up: of('up') },
      store: await storeOf(context, subject.key),
      slowHours: { down: slow.down?.hours ?? [], up: slow.up?.hours ?? [] },
    },
  });
}
