import type { StoredRun } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { proofOf, provesIt } from '../console/proofs';

/** A shared run counts its links, so that one that was revoked never opens again: n is open, -n revoked. */
const proven = (run: Pick<StoredRun, 'id'>, shareNumber: number) => `${run.id} ${shareNumber}`;

/** Path of the link by which a run is shared; null while it is not. */
export function sharePathOf(context: ConsoleContext, run: Pick<StoredRun, 'id' | 'shareNumber'>): string | null {
  const { shareNumber } = run;
  if (shareNumber === null || shareNumber <= 0) return null;
  return `/s/${run.id}/${proofOf(context.signingKey, 'share', proven(run, shareNumber))}`;
}

/** Whether a link opens a run now. */
export function opensShared(context: ConsoleContext, run: StoredRun, proof: string): boolean {
  const { shareNumber } = run;
  if (shareNumber === null || shareNumber <= 0) return false;
  return provesIt(context.signingKey, 'share', proven(run, shareNumber), proof);
}

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
