import { randomInt } from 'node:crypto';
import { createSocket, type Socket } from 'node:dgram';
import { lookup } from 'node:dns/promises';
import { ANSWER_WITHIN_MS, type Lane } from '@/core';
import { decodeReflectorPacket, encodeSenderPacket, stampKey, type ReflectorPacket } from '@/wire/peer/stamp';
import { hostAndPort } from './host-and-port';
import type { LaneProbe, OnEcho } from '@/session/lanes';

/** RFC 8762 §4.1. */
const STAMP_PORT = 862;
/** A name may come to another address meanwhile, and a socket that broke is opened anew: ms. */
const NAME_HOLDS_MS = 3600_000;
const AGAIN_MS = 3000;
/** Numbers begin where no reflector begins to count, so that one that only copies the sender's is told from one that counts. */
const [FIRST_NUMBER, NUMBERS_APART] = [2 ** 20, 2 ** 28];
const MOST_NUMBER = 2 ** 32;
/** This machine's clock is not known to be set right to better than this. */
const CLOCK_ERROR = { synchronised: false, errorMs: 1000 } as const;
/** Other equipment may know nothing of session identifiers (RFC 8972): none is sent. */
const NO_SESSION = 0;

/** What the path took: the round trip less the time that the packet lay at the reflector (RFC 8762 §4.3), ms. */
function onThePath(roundTripMs: number, { receivedMs, sentMs }: ReflectorPacket): number {
  const heldMs = sentMs - receivedMs;
  return heldMs > 0 && heldMs < roundTripMs ? roundTripMs - heldMs : roundTripMs;
}

interface Waiting {
  readonly atMs: number;
  readonly sentAt: number;
  answered: boolean;
}

/**
 * STAMP test packets (RFC 8762) to any host that reflects them, with loss by direction where it counts its answers; authenticated
 * where a key was given. Packets that it cannot prove, and answers to nothing that was asked, tell nothing.
 */
export function openStampProbe({ target, everyMs, key: text }: Lane, onEcho: OnEcho, nowMs: () => number): LaneProbe {
  const { host, port } = hostAndPort(target, STAMP_PORT);
  const key = stampKey(text);
  const waiting = new Map<number, Waiting>();
  let number = FIRST_NUMBER + randomInt(NUMBERS_APART);
  let socket: Socket | null = null;
  let openedAt = -Infinity;
  let opening = false;

  const hear = (bytes: Uint8Array) => {
    const heardAt = performance.now();
    const decoded = decodeReflectorPacket(bytes, key);
    if (!decoded.ok) return;
    const { sequence } = decoded.packet.sender;
    const asked = waiting.get(sequence);
    if (asked === undefined) return;
    const ms = onThePath(heardAt - asked.sentAt, decoded.packet);
    asked.answered = true;
    onEcho({ atMs: asked.atMs, ms, reflected: decoded.packet.sequence }, sequence);
  };

  const open = async () => {
    opening = true;
    try {
      const { address, family } = await lookup(host);
      const next = createSocket(family === 6 ? 'udp6' : 'udp4');
      next.on('message', hear);
      next.on('error', () => undefined);
      await new Promise<void>((resolve) => next.connect(port, address, () => resolve()));
      if (closed) return next.close();
      socket?.close();
      socket = next;
      openedAt = performance.now();
      // A reflector counts for each sender's port: its numbers begin anew, and ours leave a gap.
      number += 2;
    } catch {
      // Nobody knows the name now: each request counts as unanswered until somebody does.
    } finally {
      opening = false;
    }
  };

  const once = () => {
    const age = performance.now() - openedAt;
    if (!opening && age > (socket === null ? AGAIN_MS : NAME_HOLDS_MS)) void open();
    const last = waiting.get(number);
    if (last?.answered === false) onEcho({ atMs: last.atMs, ms: null }, number);
    for (const [before, { sentAt }] of waiting)
      if (performance.now() - sentAt > ANSWER_WITHIN_MS) waiting.delete(before);
    number = (number + 1) % MOST_NUMBER;
    const asked = { atMs: nowMs(), sentAt: performance.now(), answered: false };
    waiting.set(number, asked);
    const packet = { sequence: number, sentMs: Date.now(), error: CLOCK_ERROR, sessionId: NO_SESSION };
    // One that does not leave counts as unanswered.
    socket?.send(encodeSenderPacket(packet, key), () => undefined);
  };
  let closed = false;
  void open().then(() => closed || once());
  const timer = setInterval(once, everyMs);
  return {
    close: () => {
      closed = true;
      clearInterval(timer);
      socket?.close();
      socket = null;
    },
  };
}
