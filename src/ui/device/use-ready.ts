import { useSyncExternalStore } from 'react';

const nothingToHear = () => () => undefined;

/** Whether the page's script has taken over what the server drew. */
export function useReady(): boolean {
  return useSyncExternalStore(
    nothingToHear,
    () => true,
    () => false,
  );
}
