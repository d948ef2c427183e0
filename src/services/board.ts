import {
  LINK_KINDS,
  rateBloat,
  REACHES,
  siteStrawOf,
  yardstickBps,
  type BloatRating,
  type LinkKind,
  type Plan,
  type Reach,
  type StrawSegment,
  type VerdictWord,
} from '@/core';
import type { Device, Site, StoredRun } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from './console-context';
import { planOfRow } from './plan-of-row';
import { judgedSet, setsOf } from './run-sets';
import { trayOf, type TrayTurn } from './turns';
import { sweepSilentRuns } from './sweep-silent-runs';

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
}

export interface BoardRow {
  readonly deviceId: string;
  readonly deviceName: string;
  /** Whether the device stands by, so that the console can start a run on it. */
  readonly standsBy: boolean;
  readonly cells: readonly (BoardCell | null)[];
}

export interface Board {
  readonly site: Pick<Site, 'id' | 'name' | 'joinCode' | 'joinCodeUntilMs' | 'demo'>;
  readonly line: { readonly name: string; readonly provider: string } | null;
  readonly plan: Plan | null;
  readonly straw: readonly StrawSegment[];
  /** What the newest run over the provider's line carried down, bits per second; null before the first. */
  readonly flowBps: number | null;
  readonly columns: readonly BoardColumn[];
  readonly groups: readonly { readonly spotName: string | null; readonly rows: readonly BoardRow[] }[];
  readonly tray: readonly TrayTurn[];
  /** Reaches for which a peer is set up. */
  readonly reaches: readonly Reach[];
  readonly runCount: number;
  readonly nowMs: number;
}

/** Shown even while nothing was run there: the gaps are what is still to be tested. */
const ALWAYS_SHOWN: readonly BoardColumn[] = [
  { linkKind: 'wired', reach: 'local' },
  { linkKind: 'wired', reach: 'internet' },
  { linkKind: 'wifi-5', reach: 'local' },
  { linkKind: 'wifi-5', reach: 'internet' },
];

const columnKey = ({ linkKind, reach }: BoardColumn) => `${linkKind} ${reach}`;

function columnsOf(runs: readonly StoredRun[]): BoardColumn[] {
  const wanted = new Set(
    [...ALWAYS_SHOWN, ...runs.map((run) => ({ ...run, linkKind: run.linkKind as LinkKind }))].map(columnKey),
  );
  return LINK_KINDS.flatMap((linkKind) => REACHES.map((reach) => ({ linkKind, reach }))).filter((column) =>
    wanted.has(columnKey(column)),
  );
}

function cellOf(set: readonly StoredRun[]): BoardCell | null {
  const run = set.at(-1);
  const report = run?.report ?? null;
  const judged = judgedSet(set);
  if (run === undefined || report === null || judged === null) return null;
  const addedMs = judged.added?.median ?? null;
  return {
    runId: run.id,
    downBps: judged.down?.median ?? null,
    upBps: judged.up?.median ?? null,
    yardstickDownBps: yardstickBps(report.down.yardstick),
    yardstickUpBps: yardstickBps(report.up.yardstick),
    addedMs,
    rating: rateBloat(addedMs),
    verdict: judged.verdict,
    linkBelowPlan: report.fitness.some((flag) => flag.code === 'link-below-plan'),
    startedAtMs: run.startedAtMs,
    count: judged.count,
    spreadDownBps: judged.count > 1 ? (judged.down?.spread ?? null) : null,
    spreadUpBps: judged.count > 1 ? (judged.up?.spread ?? null) : null,
  };
}

function flowOf(newest: readonly StoredRun[]): number | null {
  const outside = newest.filter((run) => run.reach === 'internet').sort((a, b) => b.startedAtMs - a.startedAtMs);
  return outside[0]?.downBps ?? null;
}

/** Coverage of a site: devices by spot × link × reach, with the newest finished run in each place. */
export async function boardOf(context: ConsoleContext, siteId?: string): Promise<Outcome<Board, 'site-missing'>> {
  const { sites, runs } = context.store;
  await sweepSilentRuns(context);
  const all = await sites.all();
  const site = siteId === undefined ? all[0] : all.find((candidate) => candidate.id === siteId);
  if (site === undefined) return failed('site-missing');
  const [devices, spots, lines, peers, newest, tray, runCount] = await Promise.all([
    sites.devicesOf(site.id),
    sites.spotsOf(site.id),
    sites.linesOf(site.id),
    sites.peersOf(site.id),
    runs.newestOfEach(site.id),
    trayOf(context, site.id),
    runs.count(site.id, {}),
  ]);
  const sets = setsOf(await runs.ofSets(newest.map(({ setId }) => setId)));
  const line = lines[0];
  const nowMs = context.wallMs();
  const plan = line === undefined ? null : planOfRow(await sites.planAt(line.id, nowMs));
  const columns = columnsOf(newest);
  const rowOf = (device: Device): BoardRow => ({
    deviceId: device.id,
    deviceName: device.name,
    standsBy: context.standing.isPresent(device.id),
    cells: columns.map(({ linkKind, reach }) =>
      cellOf(
        sets.get(
          newest.find((run) => run.deviceId === device.id && run.linkKind === linkKind && run.reach === reach)?.setId ??
            '',
        ) ?? [],
      ),
    ),
  });
  const groups = [...spots, { id: null, name: null }]
    .map((spot) => ({ spotName: spot.name, rows: devices.filter((device) => device.spotId === spot.id).map(rowOf) }))
    .filter((group) => group.rows.length > 0);
  return done({
    site,
    line: line === undefined ? null : { name: line.name, provider: line.provider },
    plan,
    straw: siteStrawOf({
      deviceCount: devices.length,
      links: devices.map((device) => device.link),
      lineName: line?.name ?? null,
      plan,
      outsidePeerName: peers.find((peer) => peer.reach === 'internet')?.name ?? null,
    }),
    flowBps: flowOf(newest),
    columns,
    groups,
    tray,
    reaches: REACHES.filter((reach) => peers.some((peer) => peer.reach === reach)),
    runCount,
    nowMs,
  });
}
