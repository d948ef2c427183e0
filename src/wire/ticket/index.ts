export * from '../peer/peer-identity';
export * from '../peer/receipt-text';
export * from './key-text';
export * from './ticket-claims';
export * from './ticket-signing';
