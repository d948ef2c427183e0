import type { SetRun, Store } from '@/store';
import { cellsOf, measuredColumns, type BoardCell, type BoardColumn } from './board-cells';
import type { ConsoleContext } from '../console/console-context';

/** What a site's board shows of its runs, judged. */
export interface NewestCells {
  /** By `cellKey`. */
  readonly cells: ReadonlyMap<string, BoardCell>;
  readonly columns: readonly BoardColumn[];
  /** Of the newest run out to the internet, bits per second; null when there is none. */
  readonly flowBps: number | null;
}

interface Kept {
  readonly version: number | null;
  readonly newest: NewestCells;
}

const kept = new WeakMap<Store, Map<string, Kept>>();

function flowOf(runs: readonly SetRun[]): number | null {
  return runs.findLast((run) => run.reach === 'internet')?.downBps ?? null;
}

/** The newest set of each place of a site, judged anew only when the store has counted a change of runs since. */
export async function newestCells({ store }: ConsoleContext, siteId: string): Promise<NewestCells> {
  const ofStore = kept.get(store) ?? new Map<string, Kept>();
  kept.set(store, ofStore);
  // Read first: a change that comes while the sets are read is counted, and they are read again the next time.
  const version = await store.runs.siteVersion(siteId);
  const before = ofStore.get(siteId);
  if (before !== undefined && before.version === version) return before.newest;
  const runs = await store.runs.newestSets(siteId);
  const newest = { cells: cellsOf(runs), columns: measuredColumns(runs), flowBps: flowOf(runs) };
  ofStore.set(siteId, { version, newest });
  return newest;
}
