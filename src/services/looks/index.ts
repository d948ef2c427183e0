export type { StoredLook } from '@/store';
export { askLook, endLateLooks, stopLook, takeLook } from './looks';
export { looksPageOf, type InsideRates, type LookingMachine, type LooksPage } from './looks-page';
