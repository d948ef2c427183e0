export { AGENT_FAULTS, AgentFault } from './agent-faults';
export { ConsoleClient } from './console-client';
export { KnownDevices } from './known-devices';
export { oneRun, type OneRun, type OneRunOptions } from './one-run';
