import type { Waits } from '../run/probe-socket';

/** As much as it takes an engine to say so, and its clock to tell. */
const SAID_WITHIN_MS = 1;
/** Longer than that nobody looks. */
const LOOKS_MS = 60;

/** A socket that says how much of what was sent it still holds. */
export interface Holding {
  readonly bufferedAmount: number;
}

/**
 * How long single messages lie in a browser before they go on to the network: until `bufferedAmount` (WebSockets, WHATWG) is 0 again,
 * looked at as often as the event loop comes round. For engines that give messages to a process that sends uploads too: while
 * that is busy, a probe waits for it, and the line has no part in that.
 */
export function watchHandedOn(
  socket: Holding,
  { nowMs, soon }: { readonly nowMs: () => number; readonly soon: (look: () => void) => void },
): Waits {
  const waited = new Map<number, number>();
  return {
    sent: (sequence) => {
      const sentMs = nowMs();
      const look = () => {
        const forMs = nowMs() - sentMs;
        if (socket.bufferedAmount === 0) waited.set(sequence, Math.max(0, forMs - SAID_WITHIN_MS));
        else if (forMs < LOOKS_MS) soon(look);
      };
      look();
    },
    waitedMs: (sequence) => waited.get(sequence) ?? 0,
  };
}

/** Comes round with the event loop, without the pause that timers have. */
export function eventLoop(): (look: () => void) => void {
  const { port1, port2 } = new MessageChannel();
  const waiting: (() => void)[] = [];
  port1.onmessage = () => waiting.shift()?.();
  return (look) => {
    waiting.push(look);
    port2.postMessage(null);
  };
}
