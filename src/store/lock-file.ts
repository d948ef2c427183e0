import sqlite3 from 'sqlite3';

/** Two that come at once disturb each other for a moment; one of them gets it when both try for so long, ms. */
const TRY_FOR_MS = 500;

/**
 * Takes a file for this process alone, by SQLite's lock on it, which is the system's own: it goes with the process,
 * however that ends, and after a restart of the machine nobody has it. Gives what lets go; null when another has it.
 */
export function lockFile(file: string): Promise<{ release(): void } | null> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, (opened) => {
      if (opened !== null) return reject(opened);
      database.configure('busyTimeout', TRY_FOR_MS);
      database.exec('BEGIN EXCLUSIVE', (error) => {
        if (error === null) return resolve({ release: () => database.close() });
        database.close();
        if ('code' in error && error.code === 'SQLITE_BUSY') resolve(null);
        else reject(error);
      });
    });
  });
}
