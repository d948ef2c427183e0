'use client';

import { startTransition, useEffect, useState, useSyncExternalStore } from 'react';

/** Rows in the first HTML of a page: more than a screen. */
export const FIRST_ROWS = 24;
/** The browser draws the others by so many at a time: a key press in between need not wait for all of them. */
const STEP_ROWS = 3;

const never = () => () => undefined;

/**
 * How many of a table's rows to draw. In the HTML of a page the first ones alone, which takes the server half of the
 * time; the browser adds the others once it has taken the page over. On a page that it makes itself, all of them.
 */
export function useGrowingRows(count: number): number {
  const madeHere = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  const [shown, setShown] = useState(madeHere ? Infinity : FIRST_ROWS);
  useEffect(() => {
    if (shown >= count) return undefined;
    const next = setTimeout(() => startTransition(() => setShown(shown + STEP_ROWS)));
    return () => clearTimeout(next);
  }, [shown, count]);
  return shown;
}
