import { useSyncExternalStore } from 'react';

/** For what only the browser knows, and what never changes while the page stands. */
export const nothingToHear = () => () => undefined;

/** Whether the page's script has taken over what the server drew. */
export function useReady(): boolean {
  return useSyncExternalStore(
    nothingToHear,
    () => true,
    () => false,
  );
}
