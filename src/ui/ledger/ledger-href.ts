import { LEDGER_ORDERS, type LedgerSortName } from '@/wire';
import { readColumns, type LedgerColumn } from './ledger-columns';

/** How the ledger is looked at: what stands in its address. */
export interface LedgerChoice {
  /** What was typed. */
  readonly query: string;
  /** A device by its id, as links from elsewhere name it; null: any. */
  readonly deviceId: string | null;
  readonly sort: LedgerSortName | null;
  readonly way: 'up' | 'down' | null;
  readonly columns: readonly LedgerColumn[] | null;
}

export const WHOLE_LEDGER: LedgerChoice = { query: '', deviceId: null, sort: null, way: null, columns: null };

/** What stands behind the question mark of the ledger's address. */
export function ledgerSearch({ query, deviceId, sort, way, columns }: LedgerChoice): string {
  const search = new URLSearchParams();
  if (query.trim() !== '') search.set('q', query.trim());
  if (deviceId !== null) search.set('device', deviceId);
  if (sort !== null) search.set('sort', sort);
  if (way !== null) search.set('way', way);
  if (columns !== null) search.set('columns', columns.join(','));
  return search.toString();
}

/** The address of the ledger as it is looked at. */
export function ledgerHref(choice: LedgerChoice): string {
  const search = ledgerSearch(choice);
  return search === '' ? '/ledger' : `/ledger?${search}`;
}

/** The choice that stands in an address; what means nothing there is left out. */
export function readLedgerChoice(search: URLSearchParams): LedgerChoice {
  const way = search.get('way');
  return {
    query: (search.get('q') ?? '').slice(0, 1000),
    deviceId: search.get('device'),
    sort: LEDGER_ORDERS.find((each) => each === search.get('sort')) ?? null,
    way: way === 'up' || way === 'down' ? way : null,
    columns: readColumns(search.get('columns')),
  };
}
