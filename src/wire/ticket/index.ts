export * from './key-text';
export * from './ticket-claims';
export * from './ticket-signing';
