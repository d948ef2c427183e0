import type { Migration } from './migration';

/** An agent may be the far end: of a peer it is told which, of a run how that machine was connected, of a turn its rate of UDP. */
export const between: Migration = {
  name: '0030-between',
  statements: [
    'ALTER TABLE peers ADD COLUMN agentId TEXT',
    'ALTER TABLE runs ADD COLUMN farLink JSON',
    'ALTER TABLE turns ADD COLUMN pacedMbps DOUBLE PRECISION',
  ],
};
