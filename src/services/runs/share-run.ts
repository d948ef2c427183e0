import type { StoredRun } from '@/store';
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
