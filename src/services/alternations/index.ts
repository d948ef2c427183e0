export type { StoredAlternation } from '@/store';
export { goOnWithAlternation, moveAlternations, sideIsReady, startAlternation, stopAlternation } from './alternations';
