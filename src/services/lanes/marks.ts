import type { StoredMark } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Something begins that may matter: "heater on". */
export async function beginMark(
  context: ConsoleContext,
  byName: string,
  { siteId, label }: { readonly siteId: string; readonly label: string },
): Promise<Outcome<StoredMark, 'site-missing'>> {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  const mark: StoredMark = { id: context.newId(), siteId, label, byName, fromMs: context.wallMs(), untilMs: null };
  await context.store.lanes.saveMark(mark);
  return done(mark);
}

/** It is over. */
export async function endMark(context: ConsoleContext, id: string): Promise<Outcome<StoredMark, 'mark-unknown'>> {
  const mark = await context.store.lanes.mark(id);
  if (mark === null) return failed('mark-unknown');
  const ended = { ...mark, untilMs: mark.untilMs ?? context.wallMs() };
  await context.store.lanes.saveMark(ended);
  return done(ended);
}

export async function removeMark(context: ConsoleContext, id: string): Promise<Outcome<null, 'mark-unknown'>> {
  if ((await context.store.lanes.mark(id)) === null) return failed('mark-unknown');
  await context.store.lanes.removeMark(id);
  return done(null);
}
