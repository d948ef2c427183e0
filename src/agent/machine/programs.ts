import { isPrivateAddress } from '@/wire/address';

/** A TCP connection of this machine, as `ss -tinpHO` tells of it. Bytes since it was opened. */
export interface Connection {
  /** Both ends: the same as long as it is the same connection. */
  readonly key: string;
  readonly peerAddress: string;
  /** Null: of another user, whose programs are not told. */
  readonly program: string | null;
  readonly upBytes: number;
  readonly downBytes: number;
}

/** What a program moved over the network meanwhile. */
export interface BusyProgram {
  readonly program: string | null;
  /** Whether its connections stay inside this network. */
  readonly inside: boolean;
  readonly upBps: number;
  readonly downBps: number;
}

const addressOf = (end: string) =>
  end
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')
    .replace(/%.*$/, '');
const isOwn = (address: string) => /^127\.|^::1$|^::ffff:127\./.test(address);
const counter = (line: string, name: string) => Number(new RegExp(` ${name}:(\\d+)`).exec(line)?.[1] ?? 0);

/** Reads what `ss -tinpHO` prints, a line a connection; connections of this machine with itself are none of the network's. */
export function readConnections(text: string): Connection[] {
  return text.split('\n').flatMap((line) => {
    const [, , , local, peer] = line.trim().split(/\s+/);
    if (local === undefined || peer === undefined || !line.includes('bytes_')) return [];
    const peerAddress = addressOf(peer);
    if (isOwn(peerAddress)) return [];
    return [
      {
        key: `${local} ${peer}`,
        peerAddress,
        program: /users:\(\("([^"]*)"/.exec(line)?.[1] ?? null,
        upBytes: counter(line, 'bytes_acked'),
        downBytes: counter(line, 'bytes_received'),
      },
    ];
  });
}

/**
 * What each program moved between two looks, the busiest first. A connection that was opened meanwhile counts whole; what one
 * that was closed meanwhile moved last is not seen, nor UDP.
 */
export function programsBetween(
  before: readonly Connection[],
  after: readonly Connection[],
  betweenMs: number,
): BusyProgram[] {
  const was = new Map(before.map((connection) => [connection.key, connection]));
  const sums = new Map<string, { program: string | null; inside: boolean; up: number; down: number }>();
  for (const { key, peerAddress, program, upBytes, downBytes } of after) {
    const old = was.get(key);
    // Less than before: another connection between the same ports.
    const fresh = old === undefined || old.upBytes > upBytes || old.downBytes > downBytes;
    const inside = isPrivateAddress(peerAddress);
    const name = `${program ?? ''} ${inside}`;
    const sum = sums.get(name) ?? { program, inside, up: 0, down: 0 };
    sum.up += upBytes - (fresh ? 0 : old.upBytes);
    sum.down += downBytes - (fresh ? 0 : old.downBytes);
    sums.set(name, sum);
  }
  const bps = (bytes: number) => (8000 * bytes) / betweenMs;
  return [...sums.values()]
    .filter(({ up, down }) => up + down > 0)
    .map(({ program, inside, up, down }) => ({ program, inside, upBps: bps(up), downBps: bps(down) }))
    .sort((a, b) => b.upBps + b.downBps - a.upBps - a.downBps);
}
