import { median, percentile } from '@/core';
import { ended, startIn } from './command';

interface Reply {
  readonly sentWallMs: number;
  readonly rttMs: number;
}

/** What the system's `ping` saw. */
export class PingRecord {
  constructor(private readonly replies: readonly Reply[]) {}

  #between(fromWallMs: number, toWallMs: number): number[] {
    return this.replies
      .filter(({ sentWallMs }) => sentWallMs >= fromWallMs && sentWallMs < toWallMs)
      .map(({ rttMs }) => rttMs);
  }

  medianMs(fromWallMs: number, toWallMs: number): number | null {
    return median(this.#between(fromWallMs, toWallMs));
  }

  p95Ms(fromWallMs: number, toWallMs: number): number | null {
    return percentile(this.#between(fromWallMs, toWallMs), 0.95);
  }
}

const PINGS_PER_SECOND = 20;
const PING_BYTES = 16;
/** What `ping` itself takes of each direction, bits per second: Ethernet 14, IPv4 20, ICMP 8 and the payload. */
export const PING_BPS = PINGS_PER_SECOND * (14 + 20 + 8 + PING_BYTES) * 8;

/** Starts `ping` every 50 ms, as small as can carry a time, so that it takes little of a slow line; the returned function ends it and gives its record. */
export function startPing(netns: string, address: string): () => Promise<PingRecord> {
  const child = startIn(
    netns,
    'ping',
    '-D',
    '-n',
    '-i',
    String(1 / PINGS_PER_SECOND),
    '-s',
    String(PING_BYTES),
    address,
  );
  let text = '';
  child.stdout!.on('data', (part: Buffer) => (text += part.toString()));
  return async () => {
    child.kill('SIGINT');
    await ended(child);
    // [1700000000.123456] 24 bytes from 10.87.3.2: icmp_seq=1 ttl=62 time=0.072 ms — the stamp is the reply's.
    const replies = [...text.matchAll(/^\[([\d.]+)\].*time=([\d.]+) ms/gm)].map(([, stamp, rtt]) => ({
      sentWallMs: Number(stamp) * 1000 - Number(rtt),
      rttMs: Number(rtt),
    }));
    return new PingRecord(replies);
  };
}
