import type { Migration } from './migration';

/** An office may lie in another zone than the console: its slow hours are its own. */
export const timeZone: Migration = {
  name: '0012-time-zone',
  statements: ['ALTER TABLE sites ADD COLUMN timeZone TEXT'],
};
