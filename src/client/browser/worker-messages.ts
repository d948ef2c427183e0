import type { RunGrant } from '@/wire';
import type { RunNews } from '../run/run-runner';
import type { ChannelOrder, ChannelReport } from './channel-messages';

/** Page → worker. `powerSaving`: what only the page can notice, in words; `anew`: another worker never said a word. */
export type WorkerOrder =
  | { readonly kind: 'start'; readonly grant: RunGrant; readonly powerSaving: string | null; readonly anew: boolean }
  | { readonly kind: 'cancel' }
  | ChannelReport;

/** Worker → page: `here` as soon as it can be asked. */
export type WorkerReport = { readonly kind: 'here' } | RunNews | ChannelOrder;
