import type { HandInAnswer, RunAnswer } from '@/wire';

/** What a console answered, as far as the way there is concerned. */
export type Reply =
  | { readonly kind: 'answered'; readonly body: unknown }
  | { readonly kind: 'refused'; readonly refusal: Refusal }
  /** Nobody answered, or whoever did cannot help just now: the same again later. */
  | { readonly kind: 'away'; readonly why: string }
  /** Something answers that is no console of this version. */
  | { readonly kind: 'odd' };

export interface Refusal {
  /** The console's own code. */
  readonly code: string;
  readonly detail: string;
}

/** As much of an answer as is gone by; a page's own `Response` is one. */
export interface Answer extends Pick<Response, 'ok' | 'status'> {
  json(): Promise<unknown>;
}

/** Posts JSON to the console; page and agent each have their own way. */
export type Post = (path: string, body: unknown) => Promise<Answer>;

/** Refusals that pass by themselves: a request that came too early or was cut short on its way. */
const PASSING = new Set([408, 425]);

/**
 * Sorts what came of a request. A server error, a passing refusal and silence are all "away": the front door answers 502
 * while the console restarts, and a full disk 507. Nothing of that is a reason to throw a result away.
 */
export async function replyOf(asked: Promise<Answer>): Promise<Reply> {
  let response: Answer;
  let body: { code?: unknown; detail?: unknown } | null;
  try {
    response = await asked;
    body = response.status === 204 ? {} : ((await response.json().catch(() => null)) as typeof body);
  } catch (error) {
    return { kind: 'away', why: error instanceof Error ? error.message : String(error) };
  }
  if (response.ok) return body === null ? { kind: 'odd' } : { kind: 'answered', body };
  if (response.status >= 500 || PASSING.has(response.status))
    return { kind: 'away', why: typeof body?.detail === 'string' ? body.detail : `status ${response.status}` };
  if (typeof body?.code !== 'string' || typeof body.detail !== 'string') return { kind: 'odd' };
  return { kind: 'refused', refusal: { code: body.code, detail: body.detail } };
}

/** The page loads no schemas for what its own console sends: what it goes by is looked at, and the rest believed. */
function has<Name extends string>(body: unknown, ...names: Name[]): body is Record<Name, string> {
  return names.every((name) => typeof (body as Record<string, unknown> | null)?.[name] === 'string');
}

export function readRunAnswer(body: unknown): RunAnswer | null {
  if (!has(body, 'status', 'deviceId')) return null;
  if (body.status === 'granted' && has(body, 'runId', 'runKey', 'ticket')) return body as unknown as RunAnswer;
  return body.status === 'waiting' && has(body, 'turnId', 'turnKey', 'why') ? (body as unknown as RunAnswer) : null;
}

export function readHandInAnswer(body: unknown): HandInAnswer | null {
  return has(body, 'runId', 'status', 'figures', 'held') ? (body as unknown as HandInAnswer) : null;
}
