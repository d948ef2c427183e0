import { failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { opensShared } from '../runs/share-run';
import { runPageOf, type RunPage } from './run-page';

/** The page of a run for whoever has its link. A link that is wrong or revoked is not told from no run at all. */
export async function sharedRunPageOf(
  context: ConsoleContext,
  runId: string,
  proof: string,
): Promise<Outcome<RunPage, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  return run !== null && opensShared(context, run, proof) ? runPageOf(context, runId) : failed('run-unknown');
}
