import { readLedgerQuery, type KnownValues, type LedgerTerm, type LinkKind, type QueryFault, type Reach } from '@/core';
import { type LedgerOrder, type LedgerPlace, type LedgerRun, type LedgerView, type Site } from '@/store';
import { dayAfter, done, failed, MOST_CHOSEN, readDay, type LedgerSortName, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { siteOf } from '../office/site-of';
import { runsOfTerms } from './runs-of-terms';
import { zoneOffsets } from './zone-offsets';

export const LEDGER_SLICE_ROWS = 100;
/** What a page opens with: what a window shows and what is drawn beyond its edge, before more is asked for. */
export const LEDGER_FIRST_ROWS = 64;

/** What is asked of the ledger: what was typed, and what an address or a script names beside it. */
export interface LedgerQuery {
  readonly siteId?: string | undefined;
  /** What was typed; see core/ledger. */
  readonly query?: string | undefined;
  /** By its id: two may have had the same name. */
  readonly deviceId?: string | undefined;
  readonly linkKind?: LinkKind | undefined;
  readonly reach?: Reach | undefined;
  readonly fromMs?: number | undefined;
  readonly untilMs?: number | undefined;
  readonly sort?: LedgerSortName | undefined;
  readonly descending?: boolean | undefined;
  /** Where the slice before this one ended. */
  readonly after?: string | undefined;
  /** How many rows a slice has. */
  readonly rows?: number;
}

/** A slice of all runs, and how the list goes on. */
export interface Ledger {
  readonly site: Pick<Site, 'id' | 'name' | 'demo' | 'timeZone'>;
  readonly runs: readonly LedgerRun[];
  readonly count: number;
  /** There are more than were counted. */
  readonly isMore: boolean;
  /** To be given back as `after`; null: that was the last. */
  readonly next: string | null;
  readonly order: LedgerOrder;
  readonly faults: readonly QueryFault[];
  readonly filtered: boolean;
  readonly nowMs: number;
}

/** What stands around the list: what the typed form knows, and the views that were kept. */
export interface LedgerFrame {
  readonly known: KnownValues;
  readonly views: readonly Pick<LedgerView, 'name' | 'query' | 'byName'>[];
}

/** Names are read from A on, times and figures from the largest. */
const FROM_LARGEST: readonly LedgerSortName[] = ['when', 'down', 'up', 'idle', 'added'];
const naturallyDescending = (sort: LedgerSortName): boolean => FROM_LARGEST.includes(sort);

const placeText = (place: LedgerPlace) => Buffer.from(JSON.stringify(place)).toString('base64url');

/** A place as it stands in an address; null: it is none, and the list begins at its head. */
function readPlace(text: string | undefined): LedgerPlace | null {
  try {
    const place: unknown = JSON.parse(Buffer.from(text ?? '', 'base64url').toString());
    if (!Array.isArray(place) || place.length !== 3) return null;
    const [value, startedAtMs, id] = place as unknown[];
    const isValue = value === null || typeof value === 'number' || typeof value === 'string';
    return isValue && typeof startedAtMs === 'number' && typeof id === 'string' ? [value, startedAtMs, id] : null;
  } catch {
    return null;
  }
}

const plainTerms = ({ deviceId, linkKind, reach, fromMs, untilMs }: LedgerQuery): LedgerTerm[] => [
  ...(deviceId === undefined ? [] : [{ is: 'device-id', id: deviceId, not: false } as const]),
  ...(linkKind === undefined ? [] : [{ is: 'choice', field: 'link', values: [linkKind], not: false } as const]),
  ...(reach === undefined ? [] : [{ is: 'choice', field: 'reach', values: [reach], not: false } as const]),
  ...(fromMs === undefined && untilMs === undefined
    ? []
    : [{ is: 'time', fromMs: fromMs ?? null, untilMs: untilMs ?? null, not: false } as const]),
];

/** All that a query asks of runs, days read in the office's own time zone. */
export function termsOf(query: LedgerQuery, { timeZone }: Pick<Site, 'timeZone'>, nowMs: number) {
  const read = readLedgerQuery(query.query ?? '', {
    nowMs,
    startOf: (typed) => readDay(typed, nowMs, timeZone),
    dayAfter: (startMs) => dayAfter(startMs, timeZone),
    offsets: zoneOffsets(timeZone, nowMs),
  });
  return { terms: [...plainTerms(query), ...read.terms], faults: read.faults };
}

export async function ledgerOf(context: ConsoleContext, query: LedgerQuery): Promise<Outcome<Ledger, 'site-missing'>> {
  const { ledger } = context.store;
  const site = await siteOf(context, query.siteId);
  if (site === null) return failed('site-missing');
  const nowMs = context.wallMs();
  const { terms, faults } = termsOf(query, site, nowMs);
  const by = query.sort ?? 'when';
  const order = { by, descending: query.descending ?? naturallyDescending(by) };
  const runsOf = await runsOfTerms(context, site.id, terms);
  const after = readPlace(query.after);
  const slice = await ledger.slice(site.id, terms, order, query.rows ?? LEDGER_SLICE_ROWS, after, runsOf);
  // A first slice that is the last as well has all of them: they need not be looked for again.
  const isAll = after === null && slice.next === null;
  const { count, isMore } = isAll
    ? { count: slice.runs.length, isMore: false }
    : await ledger.count(site.id, terms, runsOf);
  return done({
    site: { id: site.id, name: site.name, demo: site.demo, timeZone: site.timeZone },
    ...{ runs: slice.runs, count, isMore, order, faults, nowMs },
    next: slice.next === null ? null : placeText(slice.next),
    filtered: terms.length > 0,
  });
}

/** Ids of all runs that match, the newest first, as many as one command may change. */
export async function matchingRuns(context: ConsoleContext, query: LedgerQuery): Promise<string[]> {
  const site = await siteOf(context, query.siteId);
  if (site === null) return [];
  const { terms } = termsOf(query, site, context.wallMs());
  return context.store.ledger.ids(site.id, terms, MOST_CHOSEN, await runsOfTerms(context, site.id, terms));
}

export async function ledgerFrameOf({ store }: ConsoleContext, siteId: string): Promise<LedgerFrame> {
  const [names, views] = await Promise.all([store.ledger.names(siteId), store.ledger.views(siteId)]);
  const plain = (of: readonly (readonly [string, string])[]) => of.map(([name]) => name);
  return {
    known: {
      ...{ device: plain(names.device), spot: plain(names.spot), peer: plain(names.peer) },
      ...{ line: plain(names.line), tag: plain(names.tag), note: [] },
    },
    views: views.map(({ name, query, byName }) => ({ name, query, byName })),
  };
}
