import type { RunGrant } from '@/wire';
import type { RunNews } from '../run/run-runner';

/** Page → worker. `powerSaving`: what only the page can notice, in words. */
export type WorkerOrder =
  | { readonly kind: 'start'; readonly grant: RunGrant; readonly powerSaving: string | null }
  | { readonly kind: 'cancel' };

/** Worker → page. */
export type WorkerReport = RunNews;
