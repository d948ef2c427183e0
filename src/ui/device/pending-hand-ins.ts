import type { HandInAnswer, HandInRequest } from '@/wire';

/** A result that waits on the device until the console has taken it. */
export interface PendingHandIn {
  readonly runId: string;
  readonly request: HandInRequest;
}

const PREFIX = 'bent-straw-hand-in:';

/** Results kept in this browser, so that neither a closed tab nor a stopped console loses them. */
export function keepHandIn({ runId, request }: PendingHandIn): void {
  try {
    localStorage.setItem(PREFIX + runId, JSON.stringify(request));
  } catch {
    // A full or forbidden storage only means that the result lives as long as this page.
  }
}

export function forgetHandIn(runId: string): void {
  try {
    localStorage.removeItem(PREFIX + runId);
  } catch {
    // Nothing was kept.
  }
}

export function keptHandIns(): PendingHandIn[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(PREFIX))
      .flatMap((key) => {
        const text = localStorage.getItem(key);
        return text === null ? [] : [{ runId: key.slice(PREFIX.length), request: JSON.parse(text) as HandInRequest }];
      });
  } catch {
    return [];
  }
}

export type HandInResult =
  | { readonly status: 'taken'; readonly answer: HandInAnswer }
  | { readonly status: 'refused'; readonly detail: string }
  | { readonly status: 'away' };

/** Hands a run in once. The console being away, or unable to write, is no refusal: the result is kept. */
export async function handIn({ runId, request }: PendingHandIn): Promise<HandInResult> {
  try {
    const response = await fetch(`/api/v1/runs/${encodeURIComponent(runId)}/hand-in`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(request),
    });
    if (response.status >= 500) return { status: 'away' };
    const body = (await response.json()) as HandInAnswer & { detail?: string };
    if (response.ok) return { status: 'taken', answer: body };
    return { status: 'refused', detail: body.detail ?? 'The console did not take the result.' };
  } catch {
    return { status: 'away' };
  }
}
