export type { RunEnding, RunFilter, RunLine, StoredRun } from './queries/run-queries';
export type { Device, Line, Site, Spot, StoredPeer, StoredPlan } from './queries/site-queries';
export type { StoredApiToken } from './queries/access-queries';
export type { StoredTurn, TurnStatus } from './queries/turn-queries';
export { openStore, type Store } from './store';
