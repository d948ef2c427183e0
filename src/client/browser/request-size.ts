/** How large requests of one kind may be, bytes, and how long one should last, ms. */
export interface RequestSizes {
  readonly smallest: number;
  readonly largest: number;
  readonly wantedMs: number;
}

/** The next request's size, a power of two: what would have taken that long at the rate of the last one. */
export function nextRequestBytes(
  lastBytes: number,
  lastMs: number,
  { smallest, largest, wantedMs }: RequestSizes,
): number {
  const wanted = (lastBytes * wantedMs) / Math.max(lastMs, 1);
  const size = 2 ** Math.round(Math.log2(Math.max(wanted, 1)));
  return Math.min(largest, Math.max(smallest, Math.min(size, lastBytes * 8)));
}
