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
}

const AWAY = 'The console does not answer. What is here stays; scroll on to try again.';

/** The rows that are there so far: the first slice, which may be drawn anew, and what was asked for since. */
export function useLedgerRows(first: DrawnSlice, more: (after: string) => Promise<DrawnSlice>): LedgerRows {
  const [later, setLater] = useState<DrawnSlice | null>(null);
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
        setLater((before) => ({ runs: [...(before?.runs ?? []), ...slice.runs], next: slice.next }));
        setState({ loading: false, failed: null });
      })
      .catch(() => setState({ loading: false, failed: AWAY }))
      .finally(() => (asking.current = false));
  }, [more, next]);
  return { rows, hasMore: next !== null, ...state, loadMore };
}
