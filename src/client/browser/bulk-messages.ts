import type { PeerAddress } from '../run/peer-address';

/** Measuring worker → bulk worker: pull with so many streams from now on. */
export interface BulkOrder {
  readonly address: PeerAddress;
  readonly streams: number;
}

/** Bulk worker → measuring worker, about every 50 ms: cumulative bytes per stream at `atMs` of this worker's clock. */
export interface BulkReport {
  readonly timeOriginMs: number;
  readonly atMs: number;
  readonly bytes: readonly number[];
}
