import type { HandInAnswer } from '@/wire';
import { readHandInAnswer, replyOf, type Post, type Refusal } from './console-link';
import type { Outbox, OutboxEntry } from './outbox';

export type HandInResult =
  | { readonly status: 'taken'; readonly answer: HandInAnswer }
  | { readonly status: 'refused'; readonly refusal: Refusal }
  | { readonly status: 'away'; readonly why: string };

/** Refusals after which the same entry can never be taken: whatever is tried later, the console has no such run. */
const FINAL = new Set(['run-unknown', 'run-key-wrong', 'request-malformed', 'request-too-large', 'body-too-large']);

/** Hands one entry in, once. It leaves the outbox when the console has it, or when it can never have it. */
export async function handInOnce(post: Post, outbox: Outbox, { runId, request }: OutboxEntry): Promise<HandInResult> {
  const reply = await replyOf(post(`/api/v1/runs/${encodeURIComponent(runId)}/hand-in`, request));
  switch (reply.kind) {
    case 'away':
      return { status: 'away', why: reply.why };
    case 'odd':
      return { status: 'away', why: 'something else answers at this address' };
    case 'refused':
      if (!FINAL.has(reply.refusal.code)) return { status: 'away', why: reply.refusal.detail };
      await outbox.remove(runId);
      return { status: 'refused', refusal: reply.refusal };
    case 'answered': {
      const answer = readHandInAnswer(reply.body);
      if (answer === null) return { status: 'away', why: 'the console answered something else' };
      await outbox.remove(runId);
      return { status: 'taken', answer };
    }
  }
}

/** Pauses between tries, ms: soon again at first, then every few seconds. */
const PAUSES_MS = [500, 1000, 2000, 3000] as const;

export interface DeliverOptions {
  readonly post: Post;
  readonly outbox: Outbox;
  readonly sleep: (ms: number, signal: AbortSignal) => Promise<void>;
  readonly signal: AbortSignal;
  /** Hears each time that the console is away. */
  readonly onAway: (why: string) => void;
}

/** Hands an entry in, again and again until the console has taken or refused it; null when that was aborted. */
export async function deliver(
  entry: OutboxEntry,
  { post, outbox, sleep, signal, onAway }: DeliverOptions,
): Promise<Exclude<HandInResult, { status: 'away' }> | null> {
  for (let attempt = 0; !signal.aborted; attempt += 1) {
    const result = await handInOnce(post, outbox, entry);
    if (result.status !== 'away') return result;
    onAway(result.why);
    await sleep(PAUSES_MS[Math.min(attempt, PAUSES_MS.length - 1)]!, signal);
  }
  return null;
}

/** Hands in what an earlier time has left; what cannot be taken now stays. How many were taken, and how many stay. */
export async function deliverLeft(
  post: Post,
  outbox: Outbox,
): Promise<{ readonly taken: number; readonly left: number }> {
  let [taken, left] = [0, 0];
  for (const entry of await outbox.all()) {
    const { status } = await handInOnce(post, outbox, entry);
    if (status === 'away') left += 1;
    else taken += 1;
  }
  return { taken, left };
}
