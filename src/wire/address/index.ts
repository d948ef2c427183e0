export * from './client-address';
export * from './own-addresses';
