export * from './history';
export * from './demo-machine';
export * from './offices';
