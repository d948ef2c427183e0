/** The two clocks of a process: wall time for dates (UTC epoch ms), monotonic time for everything that is measured. */
export const wallMs = (): number => Date.now();
export const monotonicMs = (): number => performance.now();
/** Wall time to the microsecond, as it was when the process began; for stamps whose differences count. */
export const preciseWallMs = (): number => performance.timeOrigin + performance.now();
