import type { HopDelays, PathHop, PathLoaded } from '@/core';
import type { Transport } from '@/client';
import { openNodeTransport } from '@/client/node';
import { sleep } from '@/session';
import { readControlMessage, type FarLook } from '@/wire';
import { rttsOf } from './echo';
import { LookFault } from './look-fault';
import { ping } from './ping-process';
import { reachFar } from './reach-far';

/** Requests to each hop, in each state of the line: five a second, which the kernel lets everybody send. */
const EACH = 30;
const EVERY_S = 0.2;
/** A queue of a second and more is waited for. */
const PATIENCE_S = 4;
/** More hops are not asked: what fills the line is seldom so far away. */
const MOST_HOPS = 12;
const STREAMS = 4;
/** Until a load has filled its queue, and until that has drained, ms. */
const FILLS_MS = 2000;
const DRAINS_MS = 2500;

export interface LoadParts {
  readonly signal: AbortSignal;
  /** Of the console, which may itself be the far end. */
  readonly origin: string;
}

async function delaysOf(addresses: readonly string[], signal: AbortSignal): Promise<(number | null)[][]> {
  const args = ['-i', `${EVERY_S}`, '-c', `${EACH}`, '-W', `${PATIENCE_S}`];
  return Promise.all(
    addresses.map(async (address) => {
      const { events } = await ping(address, args, signal);
      if (signal.aborted) throw new LookFault('look-stopped');
      return rttsOf(events, EACH);
    }),
  );
}

/** Bytes by the time at which they were counted. */
class Counted {
  #last: { atMs: number; bytes: number } | null = null;

  note(atMs: number, bytes: readonly number[]): void {
    this.#last = { atMs, bytes: bytes.reduce((sum, each) => sum + each, 0) };
  }

  /** What is moved from now on, bits per second, when asked; null: nothing was counted. */
  watch(): () => number | null {
    const from = this.#last;
    return () => {
      const to = this.#last;
      return from === null || to === null || to.atMs <= from.atMs
        ? null
        : (8000 * (to.bytes - from.bytes)) / (to.atMs - from.atMs);
    };
  }
}

/** The hops that can be asked by themselves. */
const askable = (hops: readonly PathHop[]) =>
  hops
    .flatMap(({ place, addresses: [address] }) =>
      address === undefined || address.startsWith('fe80:') ? [] : [{ place, address }],
    )
    .slice(0, MOST_HOPS);

/**
 * Asks the hops of a path again while a far end fills the line, first down, then up: which of them begins to be late? Throws
 * LookFault.
 */
export async function lookUnderLoad(
  hops: readonly PathHop[],
  wanted: FarLook | null,
  { signal, origin }: LoadParts,
): Promise<PathLoaded> {
  const { far, baseUrl, away, refused } = reachFar(wanted, origin);
  const asked = askable(hops);
  const addresses = asked.map(({ address }) => address);
  const idle = await delaysOf(addresses, signal);
  const transport = openNodeTransport(
    { peer: { name: far.name, baseUrl }, ticket: far.ticket },
    { authenticated: false },
  );
  const opened = await transport.open(signal);
  if (signal.aborted) throw new LookFault('look-stopped');
  if (!opened.ok) throw refused(opened.reason);
  const counted = { down: new Counted(), up: new Counted() };
  const control = await transport
    .openControl({
      onMessage: (data) => {
        const message = readControlMessage(data);
        if (message?.kind === 'upload-counters') counted.up.note(message.atMs, message.bytes);
      },
      onClose: () => undefined,
    })
    .catch(() => {
      throw away();
    });
  try {
    const down = await whileFull(
      () => transport.startDownload(STREAMS, (atMs, bytes) => counted.down.note(atMs, bytes)),
      counted.down,
    );
    await sleep(DRAINS_MS, signal);
    const up = await whileFull(() => transport.startUpload(STREAMS, null), counted.up);
    return {
      ...{ peer: far.name, downBps: down.bps, upBps: up.bps },
      hops: asked.map((hop, index): HopDelays => ({
        ...hop,
        idleMs: idle[index]!,
        downMs: down.rtts[index]!,
        upMs: up.rtts[index]!,
      })),
    };
  } finally {
    control.close();
  }

  async function whileFull(start: () => ReturnType<Transport['startDownload']>, moved: Counted) {
    const load = start();
    try {
      await sleep(FILLS_MS, signal);
      const rate = moved.watch();
      const rtts = await delaysOf(addresses, signal);
      return { rtts, bps: rate() };
    } finally {
      load.stop();
    }
  }
}
