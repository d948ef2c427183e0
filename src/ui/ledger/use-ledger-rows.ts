'use client';

import { useCallback, useMemo, useRef, useState } from 'react';
import type { DrawnRun } from './drawn-run';

/** A slice of the ledger as the browser is given it. */
export interface DrawnSlice {
  readonly runs: readonly DrawnRun[];
  /** To be asked for what follows; null: that was the last. */
  readonly next: string | null;
}

export interface LedgerRows {
  readonly rows: readonly DrawnRun[];
  readonly hasMore: boolean;
  readonly loading: boolean;
  /** What went wrong while more was asked for; null: nothing. */
  readonly failed: string | null;
  readonly loadMore: () => void;
  /** What was asked for since is asked for once more: something was changed in it. */
  readonly readAnew: () => Promise<void>;
}

const AWAY = 'The console does not answer. What is here stays; scroll on to try again.';

/** What came after the first slice, and of what. */
interface Later extends DrawnSlice {
  readonly search: string;
}

/**
 * The rows that are there so far: the first slice, which may be drawn anew, and what was asked for since. `search`: how the
 * ledger is looked at; what was asked for while it was another is forgotten.
 */
export function useLedgerRows(
  search: string,
  first: DrawnSlice,
  more: (after: string) => Promise<DrawnSlice>,
): LedgerRows {
  const [kept, setLater] = useState<Later | null>(null);
  const later = kept?.search === search ? kept : null;
  const [state, setState] = useState<{ readonly loading: boolean; readonly failed: string | null }>({
    ...{ loading: false, failed: null },
  });
  const asking = useRef(false);
  const next = later === null ? first.next : later.next;
  const rows = useMemo(() => {
    const head = new Set(first.runs.map(({ id }) => id));
    return [...first.runs, ...(later?.runs ?? []).filter(({ id }) => !head.has(id))];
  }, [first, later]);
  const loadMore = useCallback(() => {
    if (asking.current || next === null) return;
    asking.current = true;
    setState({ loading: true, failed: null });
    more(next)
      .then((slice) => {
        setLater((before) => ({
          ...{ search, next: slice.next },
          runs: [...(before?.search === search ? before.runs : []), ...slice.runs],
        }));
        setState({ loading: false, failed: null });
      })
      .catch(() => setState({ loading: false, failed: AWAY }))
      .finally(() => (asking.current = false));
  }, [more, next, search]);
  const readAnew = useCallback(async () => {
    const before = later?.runs.length ?? 0;
    let slice: DrawnSlice = { runs: [], next: first.next };
    const runs: DrawnRun[] = [];
    while (runs.length < before && slice.next !== null) {
      slice = await more(slice.next);
      runs.push(...slice.runs);
    }
    setLater({ search, runs, next: slice.next });
  }, [first.next, later, more, search]);
  return { rows, hasMore: next !== null, ...state, loadMore, readAnew };
}
