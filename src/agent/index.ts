export { AGENT_FAULTS, AgentFault } from './agent-faults';
export { DEVICE_COOKIE_NAME, postTo, readConsoleAddress, type ConsoleAddress } from './console-client';
export { diskOutbox } from './disk-outbox';
export { KnownDevices, stateFolder, type DeviceMemory, type KnownDevice } from './known-devices';
export { linkTowards } from './link-facts';
export { oneRun, type OneRun, type OneRunOptions } from './one-run';
