export * from './client-address';
export * from './own-addresses';
export { isPrivateAddress } from './private-addresses';
export * from './peer-address';
