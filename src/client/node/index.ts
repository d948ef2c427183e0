export { openWebTransport } from './web/web-transport';
export { openNodeTransport, type NodeTransportOptions } from './node-transport';
