import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import type { BackupState, KeptBackup } from '../console/backups';

/** How the copies stand. */
export interface BackupsShown {
  readonly newest: KeptBackup | null;
  readonly count: number;
  readonly trouble: BackupState['lastTrouble'];
}

async function attempt(
  context: ConsoleContext,
  kind: 'night' | 'asked',
): Promise<Outcome<KeptBackup, 'backup-failed'>> {
  try {
    const made = await context.backups.make(kind);
    context.backupState.lastTrouble = null;
    return done(made);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    context.backupState.lastTrouble = { atMs: context.wallMs(), why };
    return failed('backup-failed', { why });
  }
}

/** Once a day, at night or at the first chance after it. */
export async function nightlyBackup(context: ConsoleContext): Promise<void> {
  if (context.backups.isNightDue()) await attempt(context, 'night');
}

/** The technician wants a copy now. */
export function backUpNow(context: ConsoleContext): Promise<Outcome<KeptBackup, 'backup-failed'>> {
  return attempt(context, 'asked');
}

export function backupsShown({ backups, backupState }: ConsoleContext): BackupsShown {
  const list = backups.list();
  return { newest: list[0] ?? null, count: list.length, trouble: backupState.lastTrouble };
}
