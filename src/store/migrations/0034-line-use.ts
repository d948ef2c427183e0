import type { Migration } from './migration';

/** What others moved over the line around a run, as its router counted it. */
export const lineUse: Migration = {
  name: '0034-line-use',
  statements: ['ALTER TABLE runs ADD COLUMN lineUse JSON'],
};
