/** What the system's ping says of one request; `atMs`: when it said so, ms since 1970 (its option -D). */
export type PingEvent =
  | {
      readonly kind: 'reply';
      readonly seq: number;
      readonly atMs: number | null;
      readonly ms: number;
      readonly from: string;
      readonly ttl: number;
      readonly duplicate: boolean;
    }
  /** Nothing came until the next one was sent (its option -O). */
  | { readonly kind: 'silent'; readonly seq: number; readonly atMs: number | null }
  /** A router, or this machine, says that it does not get there. */
  | {
      readonly kind: 'refused';
      readonly seq: number;
      readonly atMs: number | null;
      readonly from: string;
      readonly why: string;
    };

const TIME = /^\[(\d+\.\d+)\] /;
const REPLY = /^\d+ bytes from (\S+?):? .*?(?:icmp_seq|seq)=(\d+) (?:ttl|hlim)=(\d+) time=([\d.]+) ms(.*)$/;
const SILENT = /^no answer yet for icmp_seq=(\d+)/;
const REFUSED = /^From (\S+?):? icmp_seq=(\d+) (.+)$/;

/** Reads a line that ping of iputils prints, with or without -D and -O; null: it tells nothing of a request. */
export function readPingLine(line: string): PingEvent | null {
  const time = TIME.exec(line);
  const atMs = time === null ? null : Number(time[1]) * 1000;
  const rest = time === null ? line : line.slice(time[0].length);
  const reply = REPLY.exec(rest);
  if (reply !== null)
    return {
      ...{ kind: 'reply', seq: Number(reply[2]), atMs, ms: Number(reply[4]), from: reply[1]!, ttl: Number(reply[3]) },
      duplicate: reply[5]!.includes('DUP!'),
    };
  const silent = SILENT.exec(rest);
  if (silent !== null) return { kind: 'silent', seq: Number(silent[1]), atMs };
  const refused = REFUSED.exec(rest);
  if (refused !== null) return { kind: 'refused', seq: Number(refused[2]), atMs, from: refused[1]!, why: refused[3]! };
  return null;
}

/** The address in the first line: "PING gateway.example (192.0.2.1) 56(84) bytes of data."; null: it has none. */
export function readPingTarget(text: string): string | null {
  return /^PING [^\s(]+ ?\(([0-9a-fA-F:.]+)\)/m.exec(text)?.[1] ?? null;
}
