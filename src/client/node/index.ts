export { openNodeTransport, type NodeTransportOptions } from './node-transport';
