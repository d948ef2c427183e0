import type { DownloadReader } from '@/core';
import type { PeerAddress } from '../run/peer-address';
import type { TroubleReport } from '../run/trouble-reports';

/** Measuring worker → bulk worker: pull with so many streams from now on. */
export interface BulkOrder {
  readonly address: PeerAddress;
  readonly reader: Exclude<DownloadReader, 'socket'>;
  readonly streams: number;
}

/** Bulk worker → measuring worker, about every 50 ms: cumulative bytes per stream at `atMs` of this worker's clock. */
export interface BulkCounts {
  readonly kind: 'counts';
  readonly timeOriginMs: number;
  readonly atMs: number;
  readonly bytes: readonly number[];
}

export type BulkReport = BulkCounts | ({ readonly kind: 'trouble' } & TroubleReport);
