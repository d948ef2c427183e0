import { evidenceOf, type FitnessCode } from '@/core';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Some runs of an office. */
export interface ChosenRuns {
  readonly siteId: string;
  readonly runIds: readonly string[];
}
type Done<Value> = Promise<Outcome<Value, 'site-missing' | 'runs-missing'>>;

async function known({ store }: ConsoleContext, { siteId }: ChosenRuns): Promise<boolean> {
  return (await store.sites.byId(siteId)) !== null;
}

/** Puts a tag on runs, or takes it off. */
export async function tagRuns(
  context: ConsoleContext,
  chosen: ChosenRuns & { readonly tag: string; readonly on: boolean },
): Done<null> {
  if (!(await known(context, chosen))) return failed('site-missing');
  await context.store.ledger.setTag(chosen.siteId, chosen.runIds, chosen.tag, chosen.on);
  return done(null);
}

/** Writes a line beside each of the runs, below what stands there. */
export async function noteRuns(context: ConsoleContext, chosen: ChosenRuns & { readonly note: string }): Done<null> {
  if (!(await known(context, chosen))) return failed('site-missing');
  await context.store.runs.addNote(chosen.siteId, chosen.runIds, chosen.note);
  return done(null);
}

/** Takes runs out of all judgement, with the reason; or back into it, with none. Answers how many. */
export async function leaveOutRuns(
  context: ConsoleContext,
  { siteId, runIds, reason }: ChosenRuns & { readonly reason: string | null },
): Done<number> {
  if (!(await known(context, { siteId, runIds }))) return failed('site-missing');
  const count = await context.store.runs.setLeftOut(siteId, runIds, reason, ({ together, practice, flags }) =>
    evidenceOf({
      ...{ together: together !== null, practice, leftOut: reason !== null },
      flags: flags.split(' ').filter((code) => code !== '') as FitnessCode[],
    }),
  );
  if (count === 0) return failed('runs-missing');
  return done(count);
}

/** Removes runs that have ended. Can be undone for a day, by the id that is answered. */
export async function removeRuns(
  context: ConsoleContext,
  { siteId, runIds }: ChosenRuns,
): Done<{ readonly removalId: string; readonly count: number }> {
  if (!(await known(context, { siteId, runIds }))) return failed('site-missing');
  const removalId = context.newId();
  const removal = { id: removalId, siteId, removedAtMs: context.wallMs() };
  const count = await context.store.removals.removeRuns(removal, runIds);
  if (count === 0) return failed('runs-missing');
  return done({ removalId, count });
}
