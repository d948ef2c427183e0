export * from './client-address';
