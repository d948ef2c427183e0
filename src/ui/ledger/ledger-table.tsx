'use client';

import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, useSyncExternalStore, type KeyboardEvent } from 'react';
import { LedgerCells } from './ledger-cells';
import { LEDGER_COLUMNS, type LedgerColumn } from './ledger-columns';
import type { LedgerChoice } from './ledger-href';
import type { LedgerRows } from './use-ledger-rows';
import type { Selection } from './use-selection';

const [WITH_STRIP, WITHOUT] = [39, 31];
/** Rows beyond the edge of the window that are drawn; and from how far before the end on more are asked for. */
const [OVERSCAN, ASK_BEFORE] = [12, 30];
/** Drawn before it is known how high the window is: as many as a window of 1080 pixels shows. */
const FIRST_DRAWN = 26;

interface LedgerTableProps {
  readonly rows: LedgerRows;
  readonly columns: readonly LedgerColumn[];
  readonly order: { readonly by: string; readonly descending: boolean };
  readonly selection: Selection;
  readonly onSort: (change: Pick<LedgerChoice, 'sort' | 'way'>) => void;
}

const nothing = () => () => undefined;

function Head({ columns, order, onSort }: Pick<LedgerTableProps, 'columns' | 'order' | 'onSort'>) {
  return columns.map((column) => {
    const { head, sort, numeric } = LEDGER_COLUMNS[column];
    const sorted = sort !== null && order.by === sort;
    const sign = sorted ? (order.descending ? ' ↓' : ' ↑') : '';
    return (
      <th
        key={column}
        aria-sort={sorted ? (order.descending ? 'descending' : 'ascending') : undefined}
        className={`whitespace-nowrap px-3 py-1 font-normal ${numeric ? 'text-right' : ''} ${sorted ? 'text-ink' : ''}`}
      >
        {sort === null ? (
          head
        ) : (
          <button
            type="button"
            className="hover:text-ink hover:underline"
            onClick={() => onSort({ sort, way: sorted ? (order.descending ? 'up' : 'down') : null })}
          >
            {head}
            {sign}
          </button>
        )}
      </th>
    );
  });
}

/** All runs that match, one row each, drawn as they come into sight. */
export function LedgerTable({ rows: of, columns, order, selection, onSort }: LedgerTableProps) {
  const { rows, hasMore, loadMore } = of;
  const router = useRouter();
  const body = useRef<HTMLTableSectionElement>(null);
  const [margin, setMargin] = useState(0);
  const [at, setAt] = useState(0);
  const inBrowser = useSyncExternalStore(
    nothing,
    () => true,
    () => false,
  );
  const height = columns.includes('strip') ? WITH_STRIP : WITHOUT;
  const list = useWindowVirtualizer({
    ...{ count: rows.length, overscan: OVERSCAN, scrollMargin: margin },
    estimateSize: () => height,
  });
  useEffect(() => setMargin((body.current?.getBoundingClientRect().top ?? 0) + window.scrollY), []);
  const shown = list.getVirtualItems();
  const lastShown = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasMore && inBrowser && lastShown >= rows.length - ASK_BEFORE) loadMore();
  }, [hasMore, inBrowser, lastShown, rows.length, loadMore]);

  const drawn =
    inBrowser && shown.length > 0
      ? shown.map(({ index }) => index)
      : rows.slice(0, FIRST_DRAWN).map((_, index) => index);
  const above = drawn[0] === undefined ? 0 : drawn[0] * height;
  const below = (rows.length - 1 - (drawn.at(-1) ?? -1)) * height;

  const goTo = (index: number) => {
    const to = Math.max(0, Math.min(rows.length - 1, index));
    setAt(to);
    list.scrollToIndex(to, { align: 'auto' });
    requestAnimationFrame(() =>
      body.current?.querySelector<HTMLElement>(`[data-row="${to}"]`)?.focus({ preventScroll: true }),
    );
  };
  const onKey = (event: KeyboardEvent) => {
    const index = Number((event.target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset['row'] ?? at);
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[event.key];
    if (step !== undefined) {
      if (event.shiftKey) selection.toggle(index + step, true);
      goTo(index + step);
    } else if (event.key === ' ') selection.toggle(index, event.shiftKey);
    else if (event.key === 'Enter' && event.target instanceof HTMLTableRowElement)
      router.push(`/runs/${rows[index]!.id}`);
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) selection.choose(rows.map(({ id }) => id));
    else if (event.key === 'Escape') selection.clear();
    else return;
    event.preventDefault();
  };
  return (
    <div className="overflow-x-auto lg:overflow-visible">
      <table className="w-full border-collapse text-[0.875rem]" aria-rowcount={rows.length + 1}>
        <thead>
          <tr className="z-[3] bg-paper text-left text-sm text-quiet shadow-[inset_0_-1.5px_0_var(--ink)] lg:sticky lg:top-12">
            <th className="w-8 py-1 font-normal">
              <span className="sr-only">chosen</span>
            </th>
            <Head columns={columns} order={order} onSort={onSort} />
          </tr>
        </thead>
        <tbody ref={body} onKeyDown={onKey}>
          {above > 0 && <tr aria-hidden="true" style={{ height: above }} />}
          {drawn.map((index) => {
            const run = rows[index];
            if (run === undefined) return null;
            const isChosen = selection.ids.has(run.id);
            return (
              <tr
                key={run.id}
                data-row={index}
                aria-rowindex={index + 2}
                aria-selected={isChosen}
                tabIndex={index === at ? 0 : -1}
                style={{ height }}
                onFocus={() => setAt(index)}
                className={`border-b border-hairline hover:bg-sheet ${isChosen ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''} ${run.aside?.startsWith('left out') === true ? 'opacity-55' : ''}`}
              >
                <td className="w-8 pl-2 align-middle">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    className="block size-4 accent-ink"
                    aria-label={`Choose ${run.device}, ${run.when}`}
                    checked={isChosen}
                    onChange={(event) => selection.toggle(index, (event.nativeEvent as MouseEvent).shiftKey)}
                  />
                </td>
                <LedgerCells run={run} columns={columns} />
              </tr>
            );
          })}
          {below > 0 && <tr aria-hidden="true" style={{ height: below }} />}
        </tbody>
      </table>
      <p role="status" className="py-3 text-center text-sm text-quiet">
        {of.failed ?? (of.loading ? 'More is coming.' : '')}
      </p>
    </div>
  );
}
