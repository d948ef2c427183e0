import type { LookAsked, LookFound, SnmpLogin } from '@/core';
import { replyOf, sleep, type Post } from '@/session';
import type { FarLook, LookOutcome } from '@/wire';
import { LookFault } from './look-fault';

/** Pauses between tries to hand in what was found, ms; after the last one nobody waits for it any more. */
const PAUSES_MS = [500, 1000, 2000, 5000, 10_000, 30_000, 60_000, 60_000] as const;

/** What a look needs besides: the login of a device that is asked by SNMP, and who looks from outside. */
export interface LookHelp {
  readonly login: SnmpLogin | null;
  readonly far: FarLook | null;
}

export type TakeLook = (asked: LookAsked, signal: AbortSignal, help: LookHelp) => Promise<LookFound>;

async function outcomeOf(take: TakeLook, order: LookOrder, signal: AbortSignal): Promise<LookOutcome> {
  try {
    return { ok: true, found: await take(order.asked, signal, order) };
  } catch (error) {
    if (!(error instanceof LookFault)) throw error;
    return { ok: false, code: error.code, sentence: error.message };
  }
}

interface LookOrder extends LookHelp {
  readonly lookId: string;
  readonly asked: LookAsked;
}

/** Looks, and hands in what was found until the console has it or does not want it. */
export async function answerLook(
  order: LookOrder,
  { take, post, signal }: { readonly take: TakeLook; readonly post: Post; readonly signal: AbortSignal },
): Promise<LookOutcome> {
  let outcome = await outcomeOf(take, order, signal);
  const path = `/api/v1/looks/${encodeURIComponent(order.lookId)}/outcome`;
  for (const pauseMs of PAUSES_MS) {
    const reply = await replyOf(post(path, outcome));
    if (reply.kind === 'answered' || (reply.kind === 'refused' && !outcome.ok)) break;
    if (reply.kind === 'refused') {
      // Whoever asked is not left waiting for something that the console does not take.
      const { code, message: sentence } = new LookFault('look-failed', { why: reply.refusal.detail });
      outcome = { ok: false, code, sentence };
      continue;
    }
    await sleep(pauseMs, new AbortController().signal);
  }
  return outcome;
}
