import type { Migration } from './migration';

/** A far end may be a web server of somebody else's; a run keeps what it was. */
export const farEnds: Migration = {
  name: '0029-far-ends',
  statements: [
    'ALTER TABLE peers ADD COLUMN web JSON',
    "ALTER TABLE runs ADD COLUMN farEnd VARCHAR(255) NOT NULL DEFAULT 'peer'",
  ],
};
