import type { ShownSteps } from '@/services';

/** Single requests as they were read, with those behind them that were heard since. */
export function withBeats(
  steps: ShownSteps,
  beats: readonly (readonly [number, number | null])[] | undefined,
): ShownSteps {
  if (steps.stepMs > 0 || beats === undefined || beats.length === 0) return steps;
  const lastMs = steps.atMs.at(-1) ?? -Infinity;
  const fresh = beats.filter(([atMs]) => atMs > lastMs + 400);
  if (fresh.length === 0) return steps;
  const times = fresh.map(([, ms]) => ms);
  return {
    stepMs: 0,
    atMs: [...steps.atMs, ...fresh.map(([atMs]) => atMs)],
    sent: [...steps.sent, ...times.map(() => 1)],
    answered: [...steps.answered, ...times.map((ms) => (ms === null ? 0 : 1))],
    minMs: [...steps.minMs, ...times],
    medianMs: [...steps.medianMs, ...times],
    p95Ms: [...steps.p95Ms, ...times],
  };
}

/** What a lane said at a moment: place of the step that holds it, or is nearest before it; null: none is near. */
export function placeAt({ atMs, stepMs }: ShownSteps, everyMs: number, momentMs: number): number | null {
  let [low, high] = [0, atMs.length - 1];
  if (high < 0 || momentMs < atMs[0]!) return null;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (atMs[middle]! <= momentMs) low = middle;
    else high = middle - 1;
  }
  return momentMs - atMs[low]! <= 2 * Math.max(stepMs, everyMs) ? low : null;
}
