import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { runPageOf, type RunPage } from './run-page';
import { opensShared, sharePathOf } from '../runs/share-run';

/** Makes a link by which anybody may read one run, or gives the one that there is. */
export async function shareRun(context: ConsoleContext, runId: string): Promise<Outcome<string, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  if (run === null) return failed('run-unknown');
  const open = sharePathOf(context, run);
  if (open !== null) return done(open);
  const shareNumber = 1 + Math.abs(run.shareNumber ?? 0);
  await context.store.runs.saveShare(runId, shareNumber);
  return done(sharePathOf(context, { id: runId, shareNumber })!);
}

/** The link opens nothing from now on. */
export async function stopSharing(context: ConsoleContext, runId: string): Promise<Outcome<null, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  if (run === null) return failed('run-unknown');
  if ((run.shareNumber ?? 0) > 0) await context.store.runs.saveShare(runId, -run.shareNumber!);
  return done(null);
}

/** The page of a run for whoever has its link. A link that is wrong or revoked is not told from no run at all. */
export async function sharedRunPageOf(
  context: ConsoleContext,
  runId: string,
  proof: string,
): Promise<Outcome<RunPage, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  return run !== null && opensShared(context, run, proof) ? runPageOf(context, runId) : failed('run-unknown');
}
