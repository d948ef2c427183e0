import { takeIn, undoImport, type ConsoleContext, type StoredImport, type TakeIn } from '@/services';
import type { Command, Look } from './command';

async function importLook({ store }: ConsoleContext, importId: string): Promise<Look | null> {
  const stored = await store.imports.byId(importId);
  if (stored === null) return null;
  const { siteId, fileName, sha256, runs, state } = stored;
  return { siteId, subject: fileName, facts: { runs, state, sha256 } };
}

export const IMPORT_COMMANDS = {
  takeIn: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'runs-imported' },
    look: ({ context, input }, made) => (made === null ? Promise.resolve(null) : importLook(context, input.importId)),
    run: ({ context, actor, input }) => takeIn(context, actor.name, input),
  } satisfies Command<TakeIn, StoredImport>,

  undoImport: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'import-undone' },
    look: ({ context, input }) => importLook(context, input.importId),
    run: ({ context, input }) => undoImport(context, input.importId),
  } satisfies Command<{ readonly importId: string }, StoredImport>,
};
