import type { RunFilter, RunLine, RunPlace, Site } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { siteOf } from '../office/site-of';

export const LEDGER_PAGE_ROWS = 50;

export interface LedgerQuery extends RunFilter {
  readonly siteId?: string | undefined;
  /** A place of a page before: what is older than it, or newer. */
  readonly older?: string | undefined;
  readonly newer?: string | undefined;
}

/** One page of all runs, the newest first. */
export interface Ledger {
  readonly site: Pick<Site, 'id' | 'name' | 'demo'>;
  readonly runs: readonly RunLine[];
  readonly total: number;
  /** The places where the pages beside this one begin; null: there is none. */
  readonly older: string | null;
  readonly newer: string | null;
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly filtered: boolean;
  readonly nowMs: number;
}

const placeText = ({ startedAtMs, id }: RunPlace) => `${startedAtMs}~${id}`;

/** A place as it stands in an address; null: it is none, and the list begins at its head. */
function readPlace(text: string | undefined): RunPlace | null {
  const [, start, id] = /^(\d+(?:\.\d+)?)~(.+)$/.exec(text ?? '') ?? [];
  return start === undefined || id === undefined ? null : { startedAtMs: Number(start), id };
}

function fromOf({ older, newer }: LedgerQuery) {
  const [behind, before] = [readPlace(older), readPlace(newer)];
  if (behind !== null) return { place: behind, way: 'older' as const };
  return before === null ? null : { place: before, way: 'newer' as const };
}

/** One row more than is shown says whether there is another page. */
function cutPage(found: readonly RunLine[], from: ReturnType<typeof fromOf>) {
  const more = found.length > LEDGER_PAGE_ROWS;
  const page = found.slice(0, LEDGER_PAGE_ROWS);
  const runs = from?.way === 'newer' ? [...page].reverse() : page;
  const [first, last] = [runs[0], runs.at(-1)];
  const hasOlder = from?.way === 'newer' || more;
  const hasNewer = from?.way === 'newer' ? more : from !== null;
  return {
    runs,
    older: hasOlder && last !== undefined ? placeText(last) : null,
    newer: hasNewer && first !== undefined ? placeText(first) : null,
  };
}

export async function ledgerOf(context: ConsoleContext, query: LedgerQuery): Promise<Outcome<Ledger, 'site-missing'>> {
  const { sites, runs } = context.store;
  const site = await siteOf(context, query.siteId);
  if (site === null) return failed('site-missing');
  const { deviceId, linkKind, reach, fromMs, untilMs } = query;
  const text = query.text?.trim() || undefined;
  const filter: RunFilter = { deviceId, linkKind, reach, text, fromMs, untilMs };
  const from = fromOf(query);
  const [total, found, devices] = await Promise.all([
    runs.count(site.id, filter),
    runs.list(site.id, filter, LEDGER_PAGE_ROWS + 1, from),
    sites.devicesOf(site.id),
  ]);
  // A page of newer runs that is not full is the head of the list: shown whole.
  const head = from?.way === 'newer' && found.length <= LEDGER_PAGE_ROWS;
  const shown = head ? await runs.list(site.id, filter, LEDGER_PAGE_ROWS + 1) : found;
  return done({
    site: { id: site.id, name: site.name, demo: site.demo },
    ...cutPage(shown, head ? null : from),
    total,
    devices: devices.map(({ id, name }) => ({ id, name })),
    filtered: Object.values(filter).some((value) => value !== undefined),
    nowMs: context.wallMs(),
  });
}
