import type { StoredImport } from '@/store';
import type { BroughtIn } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** A file that runs came from, as it is told. */
export function broughtInDocument({ id, fileName, sha256, byName, madeAtMs, runs, state }: StoredImport): BroughtIn {
  return { id, fileName, sha256, byName, madeAt: new Date(madeAtMs).toISOString(), runs, state };
}

/** Those of an office, the newest first; one that is being written is not there yet. */
export async function broughtInOf({ store }: Pick<ConsoleContext, 'store'>, siteId: string): Promise<BroughtIn[]> {
  return (await store.imports.ofSite(siteId))
    .filter(({ state }) => state === 'done' || state === 'undone')
    .map(broughtInDocument);
}
