import type { RunGrant } from '@/wire';
import type { RunNews } from '../run/run-runner';
import type { ChannelOrder, ChannelReport } from './channel-messages';

/** Page → worker. `powerSaving`: what only the page can notice, in words. */
export type WorkerOrder =
  | { readonly kind: 'start'; readonly grant: RunGrant; readonly powerSaving: string | null }
  | { readonly kind: 'cancel' }
  | ChannelReport;

/** Worker → page. */
export type WorkerReport = RunNews | ChannelOrder;
