import sqlite3 from 'sqlite3';

/**
 * Every connection that Sequelize opens, those of transactions included, gets the same settings: write-ahead log,
 * full sync at each commit (a record is there after a power cut), foreign keys, and patience with a busy file.
 */
const SETTINGS = 'PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;';
const BUSY_MS = 5000;

type OpenCallback = (error: Error | null) => void;

class SettledDatabase extends sqlite3.Database {
  constructor(filename: string, mode: number, callback: OpenCallback) {
    super(filename, mode, (error) => {
      if (error !== null) return callback(error);
      this.exec(SETTINGS, callback);
    });
    this.configure('busyTimeout', BUSY_MS);
  }
}

export const sqliteWithSettings = { ...sqlite3, Database: SettledDatabase };
