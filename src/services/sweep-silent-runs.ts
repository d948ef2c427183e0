import type { StoredRun } from '@/store';
import type { ConsoleContext } from './console-context';

/** A device reports about every 3 s while it measures; after this long without a word it counts as gone, ms. */
export const SILENT_AFTER_MS = 20_000;

export function isSilent(run: StoredRun, nowMs: number): boolean {
  return nowMs - run.lastSeenAtMs > SILENT_AFTER_MS;
}

/**
 * Records runs whose device fell silent as unfinished. If the device hands in a whole result later, that takes the
 * place of this record. Returns how many were ended.
 */
export async function sweepSilentRuns(context: ConsoleContext): Promise<number> {
  const nowMs = context.wallMs();
  const silent = (await context.store.runs.running()).filter((run) => isSilent(run, nowMs));
  for (const run of silent)
    await context.store.runs.end(
      run.id,
      { status: 'unfinished', reason: 'device-vanished', endedAtMs: run.lastSeenAtMs },
      null,
    );
  return silent.length;
}

/** After a restart of the console, devices get the usual time to report again before they count as gone. */
export async function forgiveRunningRuns(context: ConsoleContext): Promise<void> {
  const nowMs = context.wallMs();
  for (const run of await context.store.runs.running()) await context.store.runs.seen(run.id, nowMs);
}
