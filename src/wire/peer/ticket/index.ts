export * from '../peer-identity';
export * from '../receipt-text';
export * from './key-text';
export * from './ticket-claims';
export * from './ticket-signing';
