import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** What the technician writes beside a run. */
export async function saveRunNotes(
  context: ConsoleContext,
  runId: string,
  notes: string,
): Promise<Outcome<null, 'run-unknown'>> {
  if ((await context.store.runs.byId(runId)) === null) return failed('run-unknown');
  await context.store.runs.saveNotes(runId, notes);
  return done(null);
}
