import type { RunSamples, StripData, UnfinishedReason } from '@/core';
import type { RunGrant } from '@/wire';

/** Page → worker. */
export type WorkerOrder = { readonly kind: 'start'; readonly grant: RunGrant } | { readonly kind: 'cancel' };

/** What the peer said about the client when the session was opened; null until then. */
export interface SeenByPeer {
  readonly sameMachine: boolean;
  readonly ipVersion: 4 | 6;
}

/** Worker → page. */
export type WorkerReport =
  | { readonly kind: 'progress'; readonly strip: StripData }
  | { readonly kind: 'finished'; readonly samples: RunSamples; readonly seen: SeenByPeer }
  | {
      readonly kind: 'failed';
      readonly reason: UnfinishedReason;
      readonly samples: RunSamples;
      readonly seen: SeenByPeer | null;
    };
