export { NEW_DEVICE, NEW_LINE, NEW_PEER, NEW_PLAN, STARTED_RUN } from './blank-rows';
export type { RunEnding, RunFilter, RunLine, SetRun, StoredRun } from './queries/run-queries';
export type { Device, Line, LineSwitch, Site, Spot, StoredPeer, StoredPlan } from './queries/site-queries';
export type { StoredApiToken } from './queries/access-queries';
export type { StoredTurn, TurnStatus } from './queries/turn-queries';
export type { StoredReceipt } from './models/rows';
export type { RemovedLine } from './queries/removal-queries';
export { openStore, type Store } from './store';
