const LOOK_MS = 20;
/** A look that came later was held up on this side: what arrived meanwhile is still to be read, so the rest of it was no silence. */
const MOST_LOOK_MS = 2 * LOOK_MS;

export interface LastAnswers {
  readonly nowMs: () => number;
  /** Whether any is still missing. */
  readonly missing: () => boolean;
  /** How many have come. */
  readonly heard: () => number;
  /** Waits no longer than this in all. */
  readonly mostMs: number;
  /** Waits no longer than this after the last one. */
  readonly quietMs: number;
}

/**
 * Waits for the answers that are still under way. What counts is time in which this side listened: a program that was held
 * up for a second has heard nothing for a second, and nothing is lost by that.
 */
export async function waitForLastAnswers({ nowMs, missing, heard, mostMs, quietMs }: LastAnswers): Promise<void> {
  let [waitedMs, silentMs] = [0, 0];
  while (missing() && waitedMs < mostMs && silentMs < quietMs) {
    const [fromMs, before] = [nowMs(), heard()];
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    const tookMs = Math.min(nowMs() - fromMs, MOST_LOOK_MS);
    waitedMs += tookMs;
    silentMs = heard() > before ? 0 : silentMs + tookMs;
  }
}
