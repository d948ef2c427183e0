import type { Migration } from './migration';

/** Of the requests of a lane that were not answered: how many are known to have been lost on which way. */
export const lossByWay: Migration = {
  name: '0033-loss-by-way',
  statements: ['lane_minutes', 'lane_sums'].flatMap((table) =>
    ['lostThere', 'lostBack'].map((name) => `ALTER TABLE ${table} ADD COLUMN ${name} INTEGER NOT NULL DEFAULT 0`),
  ),
};
