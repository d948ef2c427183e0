import type { Migration } from './migration';

/** A turn may name the peer that it is to go to. */
export const turnPeer: Migration = {
  name: '0021-turn-peer',
  statements: ['ALTER TABLE turns ADD COLUMN peerId TEXT'],
};
