/** The two clocks of a process: wall time for dates (UTC epoch ms), monotonic time for everything that is measured. */
export const wallMs = (): number => Date.now();
export const monotonicMs = (): number => performance.now();
