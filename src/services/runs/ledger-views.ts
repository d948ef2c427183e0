import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Keeps a way to look at the ledger under a name; one of the same name gives way. */
export async function saveLedgerView(
  context: ConsoleContext,
  byName: string,
  view: { readonly siteId: string; readonly name: string; readonly query: string },
): Promise<Outcome<null, 'site-missing'>> {
  const { store } = context;
  if ((await store.sites.byId(view.siteId)) === null) return failed('site-missing');
  await store.ledger.saveView({ ...view, id: context.newId(), byName, madeAtMs: context.wallMs() });
  return done(null);
}

export async function removeLedgerView(
  { store }: ConsoleContext,
  { siteId, name }: { readonly siteId: string; readonly name: string },
): Promise<Outcome<null, never>> {
  await store.ledger.removeView(siteId, name);
  return done(null);
}
