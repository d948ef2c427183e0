import type { Migration } from './migration';

/** The technician's passphrase and sign-ins; join codes that end. */
export const access: Migration = {
  name: '0002-access',
  statements: [
    `CREATE TABLE passphrases (id TEXT PRIMARY KEY CHECK (id = 'technician'), hash TEXT NOT NULL, setAtMs REAL NOT NULL)`,
    // Only the hash of what the browser holds is kept: a copy of the file signs nobody in.
    `CREATE TABLE sign_ins (
      id TEXT PRIMARY KEY, name TEXT NOT NULL, createdAtMs REAL NOT NULL, seenAtMs REAL NOT NULL)`,
    `ALTER TABLE sites ADD COLUMN joinCodeUntilMs REAL NOT NULL DEFAULT 0`,
  ],
};
