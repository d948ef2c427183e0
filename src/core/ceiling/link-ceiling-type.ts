/** What a link can carry at best, with its arithmetic in words. Bits per second of TCP payload. */
export interface LinkCeiling {
  /** What a result is held against: the ceiling, or the lower end of it where it is a range. */
  readonly payloadBps: number;
  readonly rangeBps: { readonly low: number; readonly high: number } | null;
  /** The rate that the link itself names: negotiated, link rate, or carrier's. */
  readonly lineRateBps: number;
  readonly words: string;
}
