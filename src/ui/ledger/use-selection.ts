'use client';

import { useCallback, useState } from 'react';

export interface Selection {
  readonly ids: ReadonlySet<string>;
  /** `range`: everything from the row that was chosen last. */
  readonly toggle: (index: number, range: boolean) => void;
  readonly choose: (ids: readonly string[]) => void;
  readonly clear: () => void;
}

/** Which rows are chosen, by their ids: they stay chosen while rows come and go. */
export function useSelection(rows: readonly { readonly id: string }[]): Selection {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const [lastId, setLastId] = useState<string | null>(null);
  const toggle = useCallback(
    (index: number, range: boolean) => {
      const row = rows[index];
      if (row === undefined) return;
      const from = range ? rows.findIndex(({ id }) => id === lastId) : -1;
      setIds((before) => {
        const now = new Set(before);
        if (from >= 0) for (const { id } of rows.slice(Math.min(from, index), Math.max(from, index) + 1)) now.add(id);
        else if (!now.delete(row.id)) now.add(row.id);
        return now;
      });
      setLastId(row.id);
    },
    [rows, lastId],
  );
  return {
    ids,
    toggle,
    choose: useCallback((chosen) => setIds(new Set(chosen)), []),
    clear: useCallback(() => setIds(new Set()), []),
  };
}
