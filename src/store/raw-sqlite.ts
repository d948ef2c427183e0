import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';

/** A connection without any setting of ours: a file that is only looked at must stay as it is. To be closed. */
export function openRaw(file: string): Sequelize {
  return new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage: file, logging: false });
}
