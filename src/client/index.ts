export { stepRun } from './run/run-machine';
export { startRun, type RunNews, type SeenByPeer } from './run/run-runner';
export { samplesOf, STARTING, type RunEffect, type RunEvent, type RunState } from './run/run-state';
export type { Transport } from './run/transport';
export type { ChannelOrder, ChannelReport } from './browser/channel-messages';
export type { WorkerOrder, WorkerReport } from './browser/worker-messages';
export type { LaneOrder, LaneReport } from './lanes/lane-messages';
