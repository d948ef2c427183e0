import type sqlite3 from 'sqlite3';
import { SettledDatabase, sqliteWithSettings } from './sqlite-dialect';

type Told = ((error: Error | null) => void) | undefined;

/**
 * What Sequelize opens connections with, for one store: it opens one for each transaction and closes it afterwards, which takes
 * longer than what most of them do. So one that has ended a transaction is not closed but handed out again for the next.
 */
export interface SpareConnection {
  readonly module: typeof sqliteWithSettings;
  /** Lets everything be closed from now on, what was kept too. */
  release(): Promise<void>;
}

export function spareConnection(): SpareConnection {
  let spare: KeptDatabase | null = null;
  let releasing = false;

  const keep = (one: KeptDatabase) => {
    spare = one;
  };

  class KeptDatabase extends SettledDatabase {
    /** Which transaction it serves; Sequelize writes it here. */
    uuid?: string;

    override close(told?: Told): void {
      // One whose transaction has not ended must go: closing is what takes that back.
      if (releasing || spare !== null || !this.isBetweenTransactions) return super.close(told);
      keep(this);
      if (told !== undefined) queueMicrotask(() => told.call(this, null));
    }
  }

  /** In place of a class: `new` gives what it returns. */
  function Database(file: string, mode: number, told: NonNullable<Told>): KeptDatabase {
    if (spare === null) return new KeptDatabase(file, mode, told);
    const kept = spare;
    spare = null;
    delete kept.uuid;
    queueMicrotask(() => told.call(kept, null));
    return kept;
  }

  return {
    module: { ...sqliteWithSettings, Database: Database as unknown as typeof sqliteWithSettings.Database },
    async release() {
      releasing = true;
      const kept = spare as sqlite3.Database | null;
      spare = null;
      if (kept !== null) await new Promise((resolve) => kept.close(resolve));
    },
  };
}
