export { diskTroubleOf } from '@/store';
export * from './access';
export * from './audit';
export * from './console';
export * from './office';
export * from './runs';
export * from './turns';
export * from './upkeep';
export * from './views';
