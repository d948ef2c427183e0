import type { Migration } from './migration';

/** What the list of all offices asks of a line lies in its indexes: no run is read for it. */
export const quickOffices: Migration = {
  name: '0035-quick-offices',
  statements: [
    'DROP INDEX runs_of_line',
    'CREATE INDEX runs_of_line ON runs (lineId, startedAtMs, movedBytes)',
    `CREATE INDEX runs_of_occasions ON runs (lineId, startedAtMs, setId, verdict, addedMs)
       WHERE reach = 'internet' AND status = 'finished' AND evidence IN ('alone', 'practice')`,
  ],
};
