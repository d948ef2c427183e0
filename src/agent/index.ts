export { AGENT_FAULTS, AgentFault } from './agent-faults';
export { ConsoleClient } from './console-client';
export { KnownDevices, stateFolder, type DeviceMemory } from './known-devices';
export { linkTowards } from './link-facts';
export { oneRun, type OneRun, type OneRunOptions } from './one-run';
