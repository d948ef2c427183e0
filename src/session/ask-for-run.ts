import type { RunGrant, RunWaiting, StartRun } from '@/wire';
import { readRunAnswer, replyOf, type Post, type Refusal } from './console-link';

export type Asked =
  | { readonly status: 'granted'; readonly grant: RunGrant }
  | { readonly status: 'refused'; readonly refusal: Refusal }
  /** Nobody has answered for so long that it is no use to wait. */
  | { readonly status: 'away'; readonly why: string }
  | { readonly status: 'odd' }
  | { readonly status: 'given-up' };

export interface AskOptions {
  readonly post: Post;
  readonly sleep: (ms: number, signal: AbortSignal) => Promise<void>;
  /** Gives up: a turn that waits is withdrawn, and a grant that comes all the same is given back. */
  readonly signal: AbortSignal;
  readonly onWaiting: (waiting: RunWaiting) => void;
}

/** So long the console may hold the answer back while nothing has changed for a turn that waits, ms. */
export const HOLD_MS = 8000;
/** A turn that waits outlives a console that restarts: it is asked for again so often, after pauses. */
const AWAY_TIMES = 20;
const AWAY_PAUSE_MS = 1000;
/** A console that holds nothing back is asked no more often than this, ms. */
const LEAST_BETWEEN_MS = 500;

/** Gives back a run that was granted to somebody who does not want it any more, so that its line is free at once. */
async function giveBack(post: Post, { runId, runKey }: RunGrant): Promise<void> {
  const handIn = { outcome: 'unfinished', reason: 'cancelled', samples: null, facts: null };
  await post(`/api/v1/runs/${encodeURIComponent(runId)}/hand-in`, { runKey, handIn }).catch(() => undefined);
}

async function withdraw(post: Post, { turnId, turnKey }: RunWaiting): Promise<void> {
  await post(`/api/v1/turns/${encodeURIComponent(turnId)}/withdraw`, { turnKey }).catch(() => undefined);
}

/**
 * Asks the console for a run and waits for its turn. A first asking that nobody answers is told at once; a turn that
 * waits is kept up over a restart of the console.
 */
export async function askForRun(order: StartRun, { post, sleep, signal, onWaiting }: AskOptions): Promise<Asked> {
  let current = order;
  let waiting: RunWaiting | null = null;
  let away = 0;
  for (;;) {
    if (signal.aborted) {
      if (waiting !== null) await withdraw(post, waiting);
      return { status: 'given-up' };
    }
    const asking = sleep(LEAST_BETWEEN_MS, signal);
    // A request under way is not cut off: it may bring a grant, which must be given back.
    const reply = await replyOf(post('/api/v1/runs', { ...current, holdMs: waiting === null ? 0 : HOLD_MS }));
    if (reply.kind === 'away') {
      away += 1;
      if (waiting === null || away >= AWAY_TIMES) return { status: 'away', why: reply.why };
      await sleep(AWAY_PAUSE_MS, signal);
      continue;
    }
    if (reply.kind === 'refused') return { status: 'refused', refusal: reply.refusal };
    const answer = reply.kind === 'answered' ? readRunAnswer(reply.body) : null;
    if (answer === null) return { status: 'odd' };
    if (answer.status === 'granted') {
      if (!signal.aborted) return { status: 'granted', grant: answer };
      await giveBack(post, answer);
      return { status: 'given-up' };
    }
    away = 0;
    waiting = answer;
    onWaiting(answer);
    current = { ...current, turnId: answer.turnId, deviceId: answer.deviceId, deviceName: current.deviceName };
    await asking;
  }
}
