import type { StoredRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** A device reports every 3 s while it measures; after this long without a word it counts as gone, ms. */
export const SILENT_AFTER_MS = 12_000;

type Running = Pick<StoredRun, 'id' | 'startedAtMs' | 'untilMs'>;

/** Whether a run that stands as running is over: its device is silent, or its ticket has ended, whatever was heard since. */
export function isOver({ live }: ConsoleContext, run: Running, nowMs: number): boolean {
  if (run.untilMs !== null && nowMs > run.untilMs) return true;
  return nowMs - live.lastHeardMs(run.id, run.startedAtMs) > SILENT_AFTER_MS;
}

/**
 * Records runs that are over as unfinished. If the device hands in a whole result later, that takes the place of this
 * record. Returns how many were ended.
 */
export async function sweepSilentRuns(context: ConsoleContext): Promise<number> {
  const nowMs = context.wallMs();
  const over = (await context.store.runs.running()).filter((run) => isOver(context, run, nowMs));
  for (const run of over) {
    const heardMs = Math.min(context.live.lastHeardMs(run.id, run.startedAtMs), run.untilMs ?? Infinity);
    const endedAtMs = Math.max(run.startedAtMs, Math.min(heardMs, nowMs));
    context.farEnds.close(run.id);
    await context.store.runs.end(run.id, { status: 'unfinished', reason: 'device-vanished', endedAtMs }, null);
    context.live.forget(run.id);
    context.log.warn({ run: run.id, device: run.deviceName }, 'run ended: its device fell silent');
  }
  if (over.length > 0) context.changes.tell('runs', 'queue');
  return over.length;
}
