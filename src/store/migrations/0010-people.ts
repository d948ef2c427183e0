import type { Migration } from './migration';

/**
 * Several technicians, each with a name and a passphrase; where and in what each is signed in; what a token may do and
 * until when; what was done by whom; when the cookie before a device's present one was given.
 */
export const people: Migration = {
  name: '0010-people',
  statements: [
    // A hash of nothing: invited, and not yet come in.
    `CREATE TABLE technicians (
      id TEXT PRIMARY KEY, name TEXT NOT NULL, nameKey TEXT NOT NULL UNIQUE, hash TEXT NOT NULL,
      keeper INTEGER NOT NULL, addedAtMs REAL NOT NULL, setAtMs REAL NOT NULL)`,
    // The one passphrase had no name: whoever signs in with it first gives it one.
    `INSERT INTO technicians (id, name, nameKey, hash, keeper, addedAtMs, setAtMs)
      SELECT 'first', '', '', hash, 1, setAtMs, setAtMs FROM passphrases`,
    `DROP TABLE passphrases`,
    `DROP TABLE sign_ins`,
    `CREATE TABLE sign_ins (
      id TEXT PRIMARY KEY, technicianId TEXT NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
      address TEXT, browser TEXT, createdAtMs REAL NOT NULL, seenAtMs REAL NOT NULL)`,
    `CREATE INDEX sign_ins_of_technician ON sign_ins (technicianId)`,
    `ALTER TABLE api_tokens ADD COLUMN scope TEXT NOT NULL DEFAULT 'everything'`,
    `ALTER TABLE api_tokens ADD COLUMN endsAtMs REAL`,
    `ALTER TABLE api_tokens ADD COLUMN madeBy TEXT`,
    `CREATE TABLE audit (
      id INTEGER PRIMARY KEY AUTOINCREMENT, atMs REAL NOT NULL, who TEXT NOT NULL, whoKind TEXT NOT NULL, address TEXT,
      what TEXT NOT NULL, siteId TEXT, subject TEXT NOT NULL, before JSON, after JSON)`,
    `CREATE INDEX audit_by_time ON audit (atMs)`,
    `ALTER TABLE devices ADD COLUMN cookieBeforeMs REAL`,
    // Cookies did not say when they were given: those hold until the device has a new one.
    `UPDATE devices SET cookieBeforeMs = 0 WHERE cookieAtMs IS NOT NULL`,
  ],
};
