/** How long the parts of a run may take, and how hard it pulls. Times in ms. */
export interface RunProfile {
  readonly idleMs: number;
  readonly mostDirectionMs: number;
  readonly mostSettleMs: number;
  readonly probesPerSecond: number;
  readonly streams: number;
  /** No session, or no first echo, within this: the peer cannot be reached. */
  readonly openDeadlineMs: number;
  /** No byte at all in a direction within this: the direction is blocked. */
  readonly silenceMs: number;
}

export const STANDARD_PROFILE: RunProfile = {
  idleMs: 2000,
  mostDirectionMs: 10_000,
  mostSettleMs: 3000,
  probesPerSecond: 20,
  streams: 3,
  openDeadlineMs: 8000,
  silenceMs: 5000,
};
