export { httpRequest, type HttpAnswer, type HttpOrder } from './http-request';
export { openWebTransport } from './web/web-transport';
export { openSession } from '../run/open-session';
export { openNodeTransport, type NodeTransportOptions } from './node-transport';
