import {
  LINK_KINDS,
  rateBloat,
  REACHES,
  type BloatRating,
  type Interval,
  type LinkKind,
  type Reach,
  type VerdictWord,
} from '@/core';
import type { SetRun } from '@/store';
import { judgedSet, setsOf } from '../runs/run-sets';

/** A column of the board. */
export interface BoardColumn {
  readonly linkKind: LinkKind;
  readonly reach: Reach;
}

/** The newest set of runs of one device over one kind of link and reach. Rates in bits per second, delays in ms. */
export interface BoardCell {
  readonly runId: string;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly yardstickDownBps: number | null;
  readonly yardstickUpBps: number | null;
  readonly addedMs: number | null;
  readonly rating: BloatRating | null;
  readonly verdict: VerdictWord;
  readonly linkBelowPlan: boolean;
  readonly startedAtMs: number;
  /** How many runs the figures are the medians of, and how far those lie apart (range or MAD), bits per second. */
  readonly count: number;
  readonly spreadDownBps: number | null;
  readonly spreadUpBps: number | null;
  /** Where the newest run has no one figure in a direction: both ends, bits per second. */
  readonly rangeDownBps: Interval | null;
  readonly rangeUpBps: Interval | null;
}

/** Shown even while nothing was run there: the gaps are what is still to be tested. */
const ALWAYS_SHOWN: readonly BoardColumn[] = [
  { linkKind: 'wired', reach: 'local' },
  { linkKind: 'wired', reach: 'internet' },
  { linkKind: 'wifi-5', reach: 'local' },
  { linkKind: 'wifi-5', reach: 'internet' },
];

const columnKey = ({ linkKind, reach }: BoardColumn) => `${linkKind} ${reach}`;
export const cellKey = (deviceId: string, column: BoardColumn) => `${deviceId} ${columnKey(column)}`;
const columnOf = ({ linkKind, reach }: SetRun): BoardColumn => ({ linkKind: linkKind as LinkKind, reach });

/** Columns in a fixed order: those in which something was run, and those that always invite to it. */
export function columnsOf(runs: readonly SetRun[]): BoardColumn[] {
  const wanted = new Set([...ALWAYS_SHOWN, ...runs.map(columnOf)].map(columnKey));
  return LINK_KINDS.flatMap((linkKind) => REACHES.map((reach) => ({ linkKind, reach }))).filter((column) =>
    wanted.has(columnKey(column)),
  );
}

/** A set as a cell shows it; null when its newest run has no figures. */
export function cellOf(set: readonly SetRun[]): BoardCell | null {
  const run = set.at(-1);
  const judged = judgedSet(set);
  if (run === undefined || run.brief === null || judged === null) return null;
  const addedMs = judged.added?.median ?? null;
  return {
    runId: run.id,
    downBps: judged.down?.median ?? null,
    upBps: judged.up?.median ?? null,
    yardstickDownBps: run.brief.downYardstickBps,
    yardstickUpBps: run.brief.upYardstickBps,
    addedMs,
    rating: rateBloat(addedMs),
    verdict: judged.verdict,
    linkBelowPlan: run.brief.flags.includes('link-below-plan'),
    startedAtMs: run.startedAtMs,
    count: judged.count,
    spreadDownBps: judged.count > 1 ? (judged.down?.spread ?? null) : null,
    spreadUpBps: judged.count > 1 ? (judged.up?.spread ?? null) : null,
    rangeDownBps: judged.down === null ? (run.brief.downRangeBps ?? null) : null,
    rangeUpBps: judged.up === null ? (run.brief.upRangeBps ?? null) : null,
  };
}

/** The newest set of each place: a place's own runs, since a set never spans two. */
export function cellsOf(runs: readonly SetRun[]): ReadonlyMap<string, BoardCell> {
  const cells = new Map<string, BoardCell>();
  for (const set of setsOf(runs).values()) {
    const last = set.at(-1)!;
    const cell = cellOf(set);
    const key = cellKey(last.deviceId, columnOf(last));
    // Of devices that were merged, two sets may claim one place: the newer one has it.
    if (cell !== null && (cells.get(key)?.startedAtMs ?? 0) <= cell.startedAtMs) cells.set(key, cell);
  }
  return cells;
}
