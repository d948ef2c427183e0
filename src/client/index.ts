export { stepRun } from './run/run-machine';
export { STANDARD_PROFILE, type RunProfile } from './run/run-profile';
export { samplesOf, STARTING, type RunEffect, type RunEvent, type RunState } from './run/run-state';
export type { SeenByPeer, WorkerOrder, WorkerReport } from './browser/worker-messages';
