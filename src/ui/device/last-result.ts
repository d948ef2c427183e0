import type { HandInAnswer } from '@/wire';

/** The last result of this device, for whoever opens the page again. */
export interface LastResult {
  readonly atMs: number;
  readonly answer: HandInAnswer;
}

const KEY = 'bent-straw-last-result';

export function keepLastResult(answer: HandInAnswer): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ atMs: Date.now(), answer } satisfies LastResult));
  } catch {
    // The record has it; only this page will not show it again.
  }
}

/** As it lies in this browser; null for none. */
export function lastResultText(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

export function readLastResult(text: string | null): LastResult | null {
  try {
    const kept = JSON.parse(text ?? 'null') as Partial<LastResult> | null;
    if (typeof kept?.atMs !== 'number' || typeof kept.answer?.figures !== 'string') return null;
    return kept as LastResult;
  } catch {
    return null;
  }
}
