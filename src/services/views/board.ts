import {
  linkKindOf,
  PEER_REACHES,
  siteStrawOf,
  type LinkKind,
  type PeerReach,
  type Plan,
  type StrawSegment,
} from '@/core';
import type { Device, Site } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import { canHave, cellKey, columnsOf, type BoardCell, type BoardColumn } from './board-cells';
import { keepsCell, keepsColumn, keepsRow, type BoardFilter } from './board-filter';
import { openOutages, type OpenOutage } from '../lanes/open-outages';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { newestCells } from './newest-cells';
import { knownParts } from './proven-straw';
import { segmentFacts, type SegmentFacts } from './segment-facts';
import { standsOut, type StandsOut } from './stands-out';
import { siteOf } from '../office/site-of';
import { trayOf, type TrayTurn } from '../turns';

export interface BoardRow {
  readonly deviceId: string;
  readonly deviceName: string;
  /** Whether the device stands by, so that the console can start a run on it. */
  readonly standsBy: boolean;
  /** The kind of link that it has now, as far as is known. */
  readonly linkKind: LinkKind;
  readonly cells: readonly { readonly cell: BoardCell | null; readonly kept: boolean; readonly possible: boolean }[];
}

export interface Board {
  readonly site: Pick<Site, 'id' | 'name' | 'joinCode' | 'joinCodeUntilMs' | 'demo'>;
  readonly line: { readonly name: string; readonly provider: string } | null;
  readonly plan: Plan | null;
  readonly straw: readonly StrawSegment[];
  /** What the newest run over the provider's line carried down, bits per second; null before the first. */
  readonly flowBps: number | null;
  /** What is known of the segment that the board is narrowed to. */
  readonly facts: SegmentFacts | null;
  /** What stands out in this office. */
  readonly out: StandsOut;
  readonly columns: readonly BoardColumn[];
  readonly groups: readonly { readonly spotName: string | null; readonly rows: readonly BoardRow[] }[];
  /** Everything that the board could be narrowed to. */
  readonly spots: readonly string[];
  readonly allColumns: readonly BoardColumn[];
  /** What is silent now. */
  readonly silent: readonly OpenOutage[];
  /** Whether anything was measured here at all. */
  readonly measured: boolean;
  readonly deviceCount: number;
  /** All devices, also those that are not shown just now: for a round. */
  readonly devices: readonly Pick<BoardRow, 'deviceId' | 'deviceName' | 'standsBy'>[];
  readonly tray: readonly TrayTurn[];
  /** Reaches for which a peer is set up, and that a round can be for. */
  readonly reaches: readonly PeerReach[];
  readonly nowMs: number;
}

/** Coverage of a site: devices by spot × link × reach, with the newest set in each place. */
export async function boardOf(
  context: ConsoleContext,
  siteId?: string,
  filter: BoardFilter = {},
): Promise<Outcome<Board, 'site-missing'>> {
  const { sites } = context.store;
  const site = await siteOf(context, siteId);
  if (site === null) return failed('site-missing');
  const nowMs = context.wallMs();
  const devices = await sites.devicesOf(site.id);
  const [spots, peers, newest, tray, { line, plan }, { diagnosis, ...out }, silent] = await Promise.all([
    sites.spotsOf(site.id),
    sites.peersOf(site.id),
    newestCells(context, site.id),
    trayOf(context, site.id),
    crossingOf(context, site.id, { reach: 'internet' }, nowMs),
    standsOut(context, site.id, devices),
    openOutages(context, site.id),
  ]);
  const { cells, flowBps } = newest;
  const allColumns = columnsOf(newest.columns, devices, peers);
  const columns = allColumns.filter((column) => keepsColumn(filter, column));
  const present = ({ id, name }: Device) => ({
    ...{ deviceId: id, deviceName: name, standsBy: context.standing.isPresent(id) },
  });
  const rowOf = (device: Device): BoardRow => ({
    ...present(device),
    linkKind: linkKindOf(device.link),
    cells: columns.map((column) => {
      const cell = cells.get(cellKey(device.id, column)) ?? null;
      return { cell, kept: keepsCell(filter, cell, nowMs), possible: canHave(device, column) };
    }),
  });
  const judgesCells = filter.verdict !== undefined || filter.rating !== undefined || filter.age !== undefined;
  const groups = [...spots, { id: null, name: null }]
    .map((spot) => ({
      spotName: spot.name,
      rows: devices
        .filter((device) => device.spotId === spot.id)
        .map(rowOf)
        .filter((row) => keepsRow(filter, { deviceName: row.deviceName, spotName: spot.name }))
        .filter((row) => !judgesCells || row.cells.some(({ kept }) => kept)),
    }))
    .filter((group) => group.rows.length > 0);
  const straw = siteStrawOf({
    deviceCount: devices.length,
    links: devices.map((device) => device.link),
    lineName: line?.name ?? null,
    plan,
    outsidePeerName: peers.find((peer) => peer.reach === 'internet')?.name ?? null,
    known:
      diagnosis === null
        ? undefined
        : knownParts(diagnosis, new Set(out.findings.filter(({ state }) => state === 'let-be').map(({ key }) => key))),
  });
  return done({
    site,
    line: line === null ? null : { name: line.name, provider: line.provider },
    plan,
    straw,
    flowBps,
    facts: filter.segment === undefined ? null : segmentFacts(diagnosis, filter.segment, devices),
    out,
    columns,
    groups,
    spots: spots.map((spot) => spot.name),
    allColumns,
    silent,
    measured: newest.columns.length > 0,
    deviceCount: devices.length,
    devices: devices.map(present),
    tray,
    reaches: PEER_REACHES.filter((reach) => peers.some((peer) => peer.reach === reach)),
    nowMs,
  });
}
