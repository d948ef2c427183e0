export * from './history';
export * from './offices';
