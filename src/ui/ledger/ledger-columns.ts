import type { LedgerSortName } from '@/wire';

/** What a row can show, in the order in which it stands there. `sort`: what it is sorted by; null: it cannot be. */
export const LEDGER_COLUMNS = {
  when: { head: 'when', sort: 'when', numeric: false },
  device: { head: 'device', sort: 'device', numeric: false },
  spot: { head: 'spot', sort: 'spot', numeric: false },
  link: { head: 'link', sort: 'link', numeric: false },
  reach: { head: 'reach', sort: 'reach', numeric: false },
  peer: { head: 'peer', sort: 'peer', numeric: false },
  profile: { head: 'profile', sort: 'profile', numeric: false },
  strip: { head: 'strip', sort: null, numeric: false },
  down: { head: 'down Mb/s', sort: 'down', numeric: true },
  up: { head: 'up Mb/s', sort: 'up', numeric: true },
  idle: { head: 'idle', sort: 'idle', numeric: true },
  added: { head: 'added', sort: 'added', numeric: true },
  verdict: { head: 'verdict', sort: 'verdict', numeric: false },
  tags: { head: 'tags, notes', sort: null, numeric: false },
} as const satisfies Record<string, { head: string; sort: LedgerSortName | null; numeric: boolean }>;
export type LedgerColumn = keyof typeof LEDGER_COLUMNS;
export const LEDGER_COLUMN_NAMES = Object.keys(LEDGER_COLUMNS) as [LedgerColumn, ...LedgerColumn[]];

/** Shown as long as nobody chose others. */
export const USUAL_COLUMNS: readonly LedgerColumn[] = [
  ...(['when', 'device', 'link', 'reach', 'strip', 'down', 'up', 'idle', 'added', 'verdict', 'tags'] as const),
];

/** Columns as an address or a cookie names them, in their own order; null: none of it is a column. */
export function readColumns(text: string | null | undefined): readonly LedgerColumn[] | null {
  const named = (text ?? '').split(',');
  const columns = LEDGER_COLUMN_NAMES.filter((column) => named.includes(column));
  return columns.length === 0 ? null : columns;
}

/** Keeps the columns of a browser. */
export const COLUMNS_COOKIE = 'bent-straw-columns';
