export type { RunEnding, RunFilter, RunLine, SetRun, StoredRun } from './queries/run-queries';
export type { Device, Line, LineSwitch, Site, Spot, StoredPeer, StoredPlan } from './queries/site-queries';
export type { StoredApiToken } from './queries/access-queries';
export type { StoredTurn, TurnStatus } from './queries/turn-queries';
export type { RemovedLine } from './queries/removal-queries';
export { openStore, type Store } from './store';
