/** A copy of the data folder that lies on this machine. */
export interface KeptBackup {
  readonly folder: string;
  readonly madeAtMs: number;
  readonly runs: number;
}

/** Makes and lists copies; the program that has the folder gives it. */
export interface Backups {
  /** Rejects with a message for people where it cannot be made. */
  make(kind: 'night' | 'asked'): Promise<KeptBackup>;
  /** The newest first. */
  list(): readonly KeptBackup[];
  isNightDue(): boolean;
}

/** What became of the last try, for the set-up; forgotten with the process. */
export class BackupState {
  lastTrouble: { readonly atMs: number; readonly why: string } | null = null;
}
