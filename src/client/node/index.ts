export { httpRequest } from './http-request';
export { openWebTransport } from './web/web-transport';
export { openNodeTransport, type NodeTransportOptions } from './node-transport';
