import { stringify } from 'csv-stringify/sync';
import { linkKindOf, planPayloadBps, type LedgerTerm } from '@/core';
import type { ExportedRow, Site } from '@/store';
import { done, EXPORTED_COLUMNS, failed, type ExportedRun, type ExportFormat, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { siteOf } from '../office/site-of';
import { termsOf, type LedgerQuery } from './ledger';
import { runsOfTerms } from './runs-of-terms';

/** Figures are written with so many digits that nothing which was measured is lost, and no more. */
const DIGITS = 7;
const rounded = (value: number | null | undefined) =>
  value === null || value === undefined ? null : Number(value.toPrecision(DIGITS));
const mbps = (bps: number | null) => rounded(bps === null ? null : bps / 1e6);
const moment = (atMs: number | null) => (atMs === null ? null : new Date(atMs).toISOString());

/** A run as it leaves the console. */
export function exportedRun(row: ExportedRow): ExportedRun {
  const { plan, brief } = row;
  const lossShare = brief?.lossShare ?? null;
  // One plain object: a hundred thousand of them are made, and each spread would take as long as all of it.
  return {
    id: row.id,
    set: row.setId,
    started_at: moment(row.startedAtMs)!,
    ended_at: moment(row.endedAtMs),
    state: row.status,
    unfinished_because: row.reason,
    device: row.deviceName,
    spot: row.spotName,
    link: linkKindOf(row.link),
    reach: row.reach,
    peer: row.peerName,
    line: row.lineName,
    plan: plan?.name ?? null,
    plan_down_mbps: plan === null ? null : mbps(planPayloadBps(plan, 'down')),
    plan_up_mbps: plan === null ? null : mbps(planPayloadBps(plan, 'up')),
    profile: row.profile,
    practice_line: row.practice,
    demo: row.demo,
    down_mbps: mbps(row.downBps),
    up_mbps: mbps(row.upBps),
    idle_ms: rounded(row.idleMs),
    jitter_ms: rounded(brief?.jitterMs),
    added_down_ms: rounded(brief?.addedDownMs),
    added_up_ms: rounded(brief?.addedUpMs),
    added_worst_ms: rounded(row.addedMs),
    loss_percent: rounded(lossShare === null ? null : 100 * lossShare),
    verdict: row.verdict,
    counts_as: row.evidence,
    left_out_because: row.leftOut,
    flags: row.flags.split(' ').filter((code) => code !== ''),
    tags: [...row.tags],
    notes: row.notes,
    method_version: row.methodVersion,
  };
}

/** What a table calculator would take for a formula is led by an apostrophe, which it takes for text (OWASP, CSV injection). */
function plainCell(value: unknown): unknown {
  if (Array.isArray(value)) return plainCell(value.join(' '));
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
}

/** RFC 4180: lines end with CR LF, cells with commas, quotes or line ends stand in quotes. */
const csvOf = (rows: readonly ExportedRun[]) =>
  stringify(
    rows.map((row) => EXPORTED_COLUMNS.map((column) => plainCell(row[column]))),
    { record_delimiter: '\r\n' },
  );

async function* textOf(runs: AsyncIterable<readonly ExportedRow[]>, format: ExportFormat): AsyncGenerator<string> {
  if (format === 'csv') yield `${EXPORTED_COLUMNS.join(',')}\r\n`;
  if (format === 'json') yield '[';
  let first = true;
  for await (const rows of runs) {
    const exported = rows.map(exportedRun);
    if (format === 'csv') yield csvOf(exported);
    else if (format === 'ndjson') yield exported.map((run) => `${JSON.stringify(run)}\n`).join('');
    else yield (first ? '\n' : ',\n') + exported.map((run) => JSON.stringify(run)).join(',\n');
    first = false;
  }
  if (format === 'json') yield '\n]\n';
}

/** A file as it is handed over, a part at a time. */
export interface ExportedFile {
  readonly name: string;
  readonly parts: AsyncGenerator<string>;
}

const fileName = ({ name }: Pick<Site, 'name'>, nowMs: number, format: ExportFormat) =>
  `${
    name
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60) || 'office'
  }-${new Date(nowMs).toISOString().slice(0, 10)}.${format}`;

/** All runs that match, or those of them that were chosen, as a file. */
export async function exportedRuns(
  context: ConsoleContext,
  query: LedgerQuery & { readonly runIds?: readonly string[] | undefined },
  format: ExportFormat,
): Promise<Outcome<ExportedFile, 'site-missing'>> {
  const site = await siteOf(context, query.siteId);
  // A file of another office than the one that was named would be believed.
  if (site === null || site.id !== (query.siteId ?? site.id)) return failed('site-missing');
  const nowMs = context.wallMs();
  const asked = termsOf(query, site, nowMs).terms;
  const chosen: LedgerTerm[] = query.runIds === undefined ? [] : [{ is: 'run-ids', ids: query.runIds, not: false }];
  const terms = [...asked, ...chosen];
  const runs = context.store.exports.runs(site.id, terms, await runsOfTerms(context, site.id, terms));
  return done({ name: fileName(site, nowMs, format), parts: textOf(runs, format) });
}
