export * from './console/link-schema';
export * from './console/run-messages';
export * from './console/samples-schema';
export * from './fault/fault';
export * from './peer/peer-faults';
export * from './peer/peer-messages';
export * from './peer/peer-paths';
export * from './peer/probe-frame';
