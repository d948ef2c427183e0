import {
  LINK_KINDS,
  linkKindOf,
  rateBloat,
  REACHES,
  type BloatRating,
  type DeviceKind,
  type Interval,
  type LinkKind,
  type Reach,
  type VerdictWord,
} from '@/core';
import type { Device, SetRun, StoredPeer } from '@/store';
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

const columnKey = ({ linkKind, reach }: BoardColumn) => `${linkKind} ${reach}`;
export const cellKey = (deviceId: string, column: BoardColumn) => `${deviceId} ${columnKey(column)}`;
const columnOf = ({ linkKind, reach }: SetRun): BoardColumn => ({ linkKind: linkKind as LinkKind, reach });

/** The columns in which something was run. */
export function measuredColumns(runs: readonly SetRun[]): BoardColumn[] {
  const columns = new Map(runs.map((run) => [columnKey(columnOf(run)), columnOf(run)]));
  return [...columns.values()];
}

/** Kinds of devices that have no radio as a rule, and those that have no port for a cable. */
const WITHOUT_RADIO: readonly (DeviceKind | null)[] = ['desktop', 'server', 'box'];
const WITHOUT_PORT: readonly (DeviceKind | null)[] = ['phone', 'tablet'];

/** Whether a device can be measured over a kind of link: a place that it cannot have is no invitation. */
export function canHave({ kind, link }: Pick<Device, 'kind' | 'link'>, { linkKind, reach }: BoardColumn): boolean {
  // Between machines the other end has to be chosen, on the page of agents.
  if (reach === 'between') return false;
  const own = linkKindOf(link);
  if (own === linkKind) return true;
  if (linkKind === 'unknown' || linkKind === 'wifi') return false;
  if (linkKind === 'wired') return !WITHOUT_PORT.includes(kind) && own !== 'unknown';
  if (linkKind === 'tunnel') return false;
  // Whoever is known to be on a cable, and to be no laptop, is not expected in the air.
  return !WITHOUT_RADIO.includes(kind) && own !== 'unknown';
}

/**
 * Columns in a fixed order: one for each link that a device of this office has, and each reach that has a peer; and those
 * in which something was run. A link that nobody described makes no column of its own before something was run over it.
 */
export function columnsOf(
  measured: readonly BoardColumn[],
  devices: readonly Pick<Device, 'link'>[],
  peers: readonly Pick<StoredPeer, 'reach'>[],
): BoardColumn[] {
  const reaches = REACHES.filter((reach) => peers.some((peer) => peer.reach === reach));
  const had = [...new Set(devices.map(({ link }) => linkKindOf(link)))].filter((kind) => kind !== 'unknown');
  const expected = had.flatMap((linkKind) => reaches.map((reach) => ({ linkKind, reach })));
  // Through the tunnel, and between machines, a column is worth its place only once something was run there.
  const isAlways = ({ reach }: BoardColumn) => reach === 'local' || reach === 'internet';
  const wanted = new Set([...expected.filter(isAlways), ...measured].map(columnKey));
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
