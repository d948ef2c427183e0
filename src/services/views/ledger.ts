import type { LinkKind, Reach } from '@/core';
import type { RunFilter, RunLine, Site } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { siteOf } from '../office/site-of';

export const LEDGER_PAGE_ROWS = 50;

export interface LedgerQuery {
  readonly siteId?: string | undefined;
  readonly deviceId?: string | undefined;
  /** Part of the name of the device, its spot or the peer. */
  readonly text?: string | undefined;
  readonly linkKind?: LinkKind | undefined;
  readonly reach?: Reach | undefined;
  /** From 1. */
  readonly page?: number | undefined;
}

/** One page of all runs, the newest first. */
export interface Ledger {
  readonly site: Pick<Site, 'id' | 'name' | 'demo'>;
  readonly runs: readonly RunLine[];
  readonly total: number;
  readonly page: number;
  readonly pages: number;
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly filtered: boolean;
  readonly nowMs: number;
}

export async function ledgerOf(context: ConsoleContext, query: LedgerQuery): Promise<Outcome<Ledger, 'site-missing'>> {
  const { sites, runs } = context.store;
  const site = await siteOf(context, query.siteId);
  if (site === null) return failed('site-missing');
  const { deviceId, linkKind, reach } = query;
  const text = query.text?.trim() || undefined;
  const filter: RunFilter = { deviceId, linkKind, reach, text };
  const total = await runs.count(site.id, filter);
  const pages = Math.max(1, Math.ceil(total / LEDGER_PAGE_ROWS));
  const page = Math.min(pages, Math.max(1, query.page ?? 1));
  const [rows, devices] = await Promise.all([
    runs.list(site.id, filter, LEDGER_PAGE_ROWS, (page - 1) * LEDGER_PAGE_ROWS),
    sites.devicesOf(site.id),
  ]);
  return done({
    site: { id: site.id, name: site.name, demo: site.demo },
    runs: rows,
    total,
    page,
    pages,
    devices: devices.map(({ id, name }) => ({ id, name })),
    filtered: Object.values(filter).some((value) => value !== undefined),
    nowMs: context.wallMs(),
  });
}
