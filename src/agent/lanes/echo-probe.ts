import { isIP } from 'node:net';
import { echoOfPing, type Lane } from '@/core';
import { pingProcess } from '../look/ping-process';
import type { LaneProbe, OnEcho } from '@/session/lanes';

/** ping is started again so long after it ended, ms. */
const AGAIN_MS = 3000;
/** A name may come to another address meanwhile: it is looked up anew so often, ms. */
const NAME_HOLDS_MS = 3600_000;
/** ping counts in 16 bits. */
const SEQ_MODULUS = 65_536;

/** Keys of requests whose number comes round after 65 536, in the order in which they are heard. */
export class RequestKeys {
  #highest = 0;

  constructor(private readonly base: number) {}

  of(seq: number): number {
    const round = Math.round((this.#highest - seq) / SEQ_MODULUS);
    const whole = seq + Math.max(0, round) * SEQ_MODULUS;
    this.#highest = Math.max(this.#highest, whole);
    return this.base + whole;
  }
}

/** Requests of one process do not meet those of the one before it. */
const PER_PROCESS = 1e9;

/**
 * Echo requests by one long-lived ping of the system's. While it cannot be run because nothing leads there, each request that it
 * would have sent counts as unanswered; where it is missing, nothing is known and nothing is said.
 */
export function openEchoProbe(
  lane: Lane,
  onEcho: OnEcho,
  nowMs: () => number,
  through: readonly string[] = [],
): LaneProbe {
  const closing = new AbortController();
  let process = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let silence: ReturnType<typeof setInterval> | undefined;

  const run = async () => {
    process += 1;
    const keys = new RequestKeys(process * PER_PROCESS);
    const ending = new AbortController();
    const stop = () => ending.abort();
    closing.signal.addEventListener('abort', stop);
    const renewal = isIP(lane.target) === 0 ? setTimeout(stop, NAME_HOLDS_MS) : undefined;
    const args = ['-i', `${lane.everyMs / 1000}`, '-W', '10', '--', lane.target];
    const { said } = await pingProcess(
      args,
      ending.signal,
      (event) => {
        clearInterval(silence);
        onEcho(echoOfPing(event, lane.everyMs, nowMs()), keys.of(event.seq));
      },
      through,
    ).catch((error: unknown) => ({ said: error instanceof Error ? error.message : '' }));
    clearTimeout(renewal);
    closing.signal.removeEventListener('abort', stop);
    if (closing.signal.aborted) return;
    clearInterval(silence);
    // No way there, or nobody who knows the name: that is a silence as well.
    if (/unreachable|no route|not known|temporary failure/i.test(said))
      silence = setInterval(() => onEcho({ atMs: nowMs(), ms: null }), lane.everyMs);
    timer = setTimeout(() => void run(), AGAIN_MS);
  };
  void run();
  return {
    close: () => {
      closing.abort();
      clearTimeout(timer);
      clearInterval(silence);
    },
  };
}
