import type { ShareFound, ShareSeries } from './look';

/** Bytes over the whole time until all of it was safe, bits per second; null: nothing moved. */
export function shareRateBps({ atMs, bytes }: ShareSeries): number | null {
  const [ms, moved] = [atMs.at(-1) ?? 0, bytes.at(-1) ?? 0];
  return ms > 0 && moved > 0 ? (8000 * moved) / ms : null;
}

/** What holds a copy back: the store when it brings less than this share of what the network brings. */
const STORE_IS_LESS = 0.85;

export interface ShareAnswer {
  readonly writeBps: number | null;
  readonly readBps: number | null;
  /** By direction; null: nothing to hold it against. `own`: it is no share, so it tells of the machine alone. */
  readonly limit: { readonly up: 'store' | 'network' | null; readonly down: 'store' | 'network' | null } | 'own';
}

/** What a store brings beside what the network brings to the peer inside; the rates of the network in bits per second. */
export function shareAnswer(
  found: ShareFound,
  network: { readonly downBps: number | null; readonly upBps: number | null },
): ShareAnswer {
  const writeBps = shareRateBps(found.written);
  const readBps = found.read === null ? null : shareRateBps(found.read);
  const limit = (storeBps: number | null, networkBps: number | null) =>
    storeBps === null || networkBps === null ? null : storeBps < STORE_IS_LESS * networkBps ? 'store' : 'network';
  if (found.place !== 'network') return { writeBps, readBps, limit: 'own' };
  return { writeBps, readBps, limit: { up: limit(writeBps, network.upBps), down: limit(readBps, network.downBps) } };
}
