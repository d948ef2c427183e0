import type { StoredRun } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { opensByProof, sharedProof, shareOff, shareOn } from './shared-link';

/** Path of the link by which a run is shared; null while it is not. */
export function sharePathOf(context: ConsoleContext, run: Pick<StoredRun, 'id' | 'shareNumber'>): string | null {
  const proof = sharedProof(context, run.id, run.shareNumber);
  return proof === null ? null : `/s/${run.id}/${proof}`;
}

/** Whether a link opens a run now. */
export function opensShared(context: ConsoleContext, { id, shareNumber }: StoredRun, proof: string): boolean {
  return opensByProof(context, id, shareNumber, proof);
}

/** Makes a link by which anybody may read one run, or gives the one that there is. */
export async function shareRun(context: ConsoleContext, runId: string): Promise<Outcome<string, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  if (run === null) return failed('run-unknown');
  const shareNumber = shareOn(run.shareNumber);
  if (shareNumber !== run.shareNumber) await context.store.runs.saveShare(runId, shareNumber);
  return done(sharePathOf(context, { id: runId, shareNumber })!);
}

/** The link opens nothing from now on. */
export async function stopSharing(context: ConsoleContext, runId: string): Promise<Outcome<null, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  if (run === null) return failed('run-unknown');
  const shareNumber = shareOff(run.shareNumber);
  if (shareNumber !== run.shareNumber) await context.store.runs.saveShare(runId, shareNumber);
  return done(null);
}
