import type { Migration } from './migration';

/** What was said and noticed before a run. */
export const conditions: Migration = {
  name: '0004-conditions',
  statements: [
    `ALTER TABLE runs ADD COLUMN told JSON NOT NULL DEFAULT '[]'`,
    `ALTER TABLE runs ADD COLUMN noticed JSON NOT NULL DEFAULT '[]'`,
  ],
};
