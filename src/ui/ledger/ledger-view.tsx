'use client';

import { useRouter } from 'next/navigation';
import { startTransition, useCallback, useOptimistic, useState } from 'react';
import type { LedgerFrame } from '@/services';
import { Button } from '../parts/button';
import { ChosenBar, type ChosenActions } from './chosen-bar';
import { ColumnChoice } from './column-choice';
import { COLUMNS_COOKIE, USUAL_COLUMNS, type LedgerColumn } from './ledger-columns';
import { LedgerField } from './ledger-field';
import { LedgerHelp } from './ledger-help';
import { ledgerHref, ledgerSearch, type LedgerChoice } from './ledger-href';
import { LedgerTable } from './ledger-table';
import { LedgerViews } from './ledger-views';
import { TakeOut } from './take-out';
import { useLedgerRows, type DrawnSlice } from './use-ledger-rows';
import { useSelection } from './use-selection';
import { Link } from '../parts/link';

/** What the ledger asks of the console. */
export interface LedgerActions extends Omit<ChosenActions, 'remove'> {
  readonly more: (search: string, after: string) => Promise<DrawnSlice>;
  readonly matching: (search: string) => Promise<readonly string[]>;
  readonly remove: (
    runIds: readonly string[],
  ) => Promise<{ readonly removalId: string | null; readonly refused: string | null }>;
  /** Holds two trays side by side, and goes there; answers with what stands in the way. */
  readonly compare: (a: readonly string[], b: readonly string[]) => Promise<string | null>;
  readonly putBack: (removalId: string) => Promise<string | null>;
  readonly saveView: (name: string, search: string) => Promise<string | null>;
  readonly removeView: (name: string) => Promise<string | null>;
}

interface LedgerViewProps {
  readonly siteId: string;
  readonly choice: LedgerChoice;
  /** Those that this browser keeps. */
  readonly keptColumns: readonly LedgerColumn[] | null;
  readonly first: DrawnSlice;
  readonly count: number;
  readonly isMore: boolean;
  readonly order: { readonly by: string; readonly descending: boolean };
  /** What of the query means nothing, a sentence each. */
  readonly faults: readonly string[];
  readonly filtered: boolean;
  /** Name of the device that an address names by its id; null: none. */
  readonly deviceName: string | null;
  readonly frame: LedgerFrame;
  readonly actions: LedgerActions;
}

const YEAR_S = 365 * 24 * 3600;
const NO_TRAYS: Readonly<Record<'A' | 'B', readonly string[]>> = { A: [], B: [] };

function Empty({ filtered }: Pick<LedgerViewProps, 'filtered'>) {
  return (
    <p className="mt-16 text-center text-quiet">
      {filtered ? (
        <>
          No run matches.{' '}
          <Link href="/ledger" className="text-ink underline">
            Show all of them.
          </Link>
        </>
      ) : (
        'Nothing has been measured yet. Join a device from the board and run.'
      )}
    </p>
  );
}

/** All runs: narrowed by typing, sorted, chosen, and changed many at a time. */
export function LedgerView(props: LedgerViewProps) {
  const { choice, first, count, isMore, order, faults, filtered, deviceName, frame, actions } = props;
  const router = useRouter();
  const search = ledgerSearch(choice);
  const more = useCallback((after: string) => actions.more(search, after), [actions, search]);
  const rows = useLedgerRows(search, first, more);
  const selection = useSelection(rows.rows);
  const [removed, setRemoved] = useState<{ readonly id: string; readonly count: number } | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [trays, setTrays] = useState<typeof NO_TRAYS>(NO_TRAYS);
  // A tick is seen at once, and the address follows.
  const [columns, showColumns] = useOptimistic(choice.columns ?? props.keptColumns ?? USUAL_COLUMNS);
  const go = (change: Partial<LedgerChoice>) => router.replace(ledgerHref({ ...choice, ...change }), { scroll: false });
  const keepColumns = (chosen: readonly LedgerColumn[]) => {
    document.cookie = `${COLUMNS_COOKIE}=${chosen.join(',')}; path=/ledger; max-age=${YEAR_S}; samesite=lax`;
    startTransition(() => {
      showColumns(chosen);
      go({ columns: chosen });
    });
  };
  const remove = async (runIds: readonly string[]) => {
    const answer = await actions.remove(runIds);
    if (answer.removalId !== null) setRemoved({ id: answer.removalId, count: runIds.length });
    return answer.refused;
  };
  /** Rows that came later do not hear of what a page was drawn anew for. */
  const changed = async (act: Promise<string | null>) => {
    const stands = await act;
    if (stands === null) await rows.readAnew();
    return stands;
  };
  const putBack = (removalId: string) =>
    void actions.putBack(removalId).then((stands) => {
      setRefused(stands);
      if (stands !== null) return;
      setRemoved(null);
      void rows.readAnew();
    });
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <h1 className="text-xl font-semibold">Ledger</h1>
        <LedgerField value={choice.query} known={frame.known} onQuery={(query) => go({ query })} />
        <LedgerHelp />
        <LedgerViews
          views={frame.views}
          onChoose={(kept) => router.push(kept === '' ? '/ledger' : `/ledger?${kept}`)}
          save={(name) => actions.saveView(name, search)}
          remove={actions.removeView}
        />
        <ColumnChoice columns={columns} onColumns={keepColumns} />
        <TakeOut siteId={props.siteId} choice={choice} />
        <span className="min-w-28 text-right text-sm text-quiet" role="status">
          <span className="figure">{isMore ? `over ${count}` : count}</span> {count === 1 ? 'run' : 'runs'}
          {filtered && ' match'}
        </span>
      </div>
      {deviceName !== null && (
        <p className="mb-2 text-sm">
          Only runs of <span className="font-semibold">{deviceName}</span>.{' '}
          <button type="button" className="underline" onClick={() => go({ deviceId: null })}>
            Of all devices
          </button>
        </p>
      )}
      {faults.map((fault) => (
        <p key={fault} role="alert" className="mb-1 text-sm text-thin-words">
          {fault}
        </p>
      ))}
      {refused !== null && (
        <p role="alert" className="mb-2 text-sm font-medium text-starved">
          {refused}
        </p>
      )}
      {rows.rows.length === 0 ? (
        <Empty filtered={filtered} />
      ) : (
        <LedgerTable rows={rows} columns={columns} order={order} selection={selection} onSort={go} />
      )}
      {removed !== null && selection.ids.size === 0 && (
        <p
          role="status"
          className="sticky bottom-0 z-[4] -mx-2 border border-ink bg-sheet px-4 py-2 text-sm shadow-[0_-3px_0_var(--hairline)]"
        >
          {removed.count === 1 ? 'A run was removed.' : `${removed.count} runs were removed.`}{' '}
          <Button look="quiet" className="!min-h-7 !px-1 text-sm" onClick={() => putBack(removed.id)}>
            {removed.count === 1 ? 'Put it back' : 'Put them back'}
          </Button>
          <span className="text-quiet"> For a day it can also be put back from the set-up.</span>
        </p>
      )}
      {(trays.A.length > 0 || trays.B.length > 0) && selection.ids.size === 0 && (
        <section
          aria-label="Trays"
          className="sticky bottom-0 z-[4] -mx-2 flex flex-wrap items-center gap-x-4 gap-y-1 border border-ink bg-sheet px-4 py-2 text-sm shadow-[0_-3px_0_var(--hairline)]"
        >
          <span role="status">
            Tray A: <span className="figure">{trays.A.length}</span> · tray B:{' '}
            <span className="figure">{trays.B.length}</span>
          </span>
          {trays.A.length > 0 && trays.B.length > 0 ? (
            <Button
              look="main"
              className="!min-h-8 text-sm"
              onClick={() => void actions.compare(trays.A, trays.B).then(setRefused)}
            >
              Hold them side by side
            </Button>
          ) : (
            <span className="text-quiet">Choose the runs for the other one.</span>
          )}
          <Button look="quiet" className="!min-h-8 !px-1 text-sm" onClick={() => setTrays(NO_TRAYS)}>
            empty both
          </Button>
        </section>
      )}
      <ChosenBar
        ids={selection.ids}
        count={count}
        isMore={isMore}
        chooseAll={() => void actions.matching(search).then(selection.choose)}
        clear={selection.clear}
        siteId={props.siteId}
        runs={rows.rows.filter(({ id }) => selection.ids.has(id))}
        toTray={(letter) => {
          setTrays((before) => ({ ...before, [letter]: [...selection.ids] }));
          selection.clear();
        }}
        actions={{
          tag: (runIds, tag, on) => changed(actions.tag(runIds, tag, on)),
          note: (runIds, note) => changed(actions.note(runIds, note)),
          leaveOut: (runIds, reason) => changed(actions.leaveOut(runIds, reason)),
          remove: (runIds) => changed(remove(runIds)),
        }}
      />
    </>
  );
}
