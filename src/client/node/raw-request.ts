import { connect as connectTcp, type Socket } from 'node:net';
import { connect as connectTls } from 'node:tls';

/** A connection on which one HTTP request has been written; `onBody` gets what follows the answer's head. */
export interface RawRequest {
  readonly socket: Socket;
  destroy(): void;
}

export interface RawRequestEvents {
  /** The status of the answer; bytes after its head are counted from then on. */
  readonly onStatus: (status: number) => void;
  readonly onBody: (bytes: number) => void;
  readonly onClose: () => void;
}

const READ_BYTES = 1024 * 1024;
const LONGEST_HEAD = 16_384;

/** Finds the end of the head in what has come so far, and counts the rest. */
class AnswerCounter {
  #head: Buffer | null = Buffer.alloc(0);

  constructor(private readonly events: RawRequestEvents) {}

  take(part: Buffer): void {
    if (this.#head === null) return this.events.onBody(part.length);
    // Copied: the buffer is used again for the next read.
    this.#head = Buffer.concat([this.#head, part]);
    const end = this.#head.indexOf('\r\n\r\n');
    if (end < 0) {
      if (this.#head.length > LONGEST_HEAD) this.#head = Buffer.alloc(0);
      return;
    }
    const status = Number(/^HTTP\/1\.\d (\d{3})/.exec(this.#head.toString('latin1', 0, 20))?.[1] ?? 0);
    const bodyBytes = this.#head.length - end - 4;
    this.#head = null;
    this.events.onStatus(status);
    if (bodyBytes > 0) this.events.onBody(bodyBytes);
  }
}

/**
 * Sends one request over a connection of its own and counts the answer. Plain connections are read into one buffer that
 * is used again and again: that is what lets one process take in 8 Gb/s.
 */
export function rawRequest(
  url: URL,
  method: 'GET' | 'POST',
  headers: Readonly<Record<string, string>>,
  events: RawRequestEvents,
): RawRequest {
  const secure = url.protocol === 'https:';
  const target = { host: url.hostname.replace(/^\[|\]$/g, ''), port: Number(url.port || (secure ? 443 : 80)) };
  const counter = new AnswerCounter(events);
  const buffer = Buffer.allocUnsafe(READ_BYTES);
  const onread = {
    buffer,
    callback: (bytes: number) => {
      counter.take(buffer.subarray(0, bytes));
      return true;
    },
  };
  const socket = secure
    ? connectTls({ ...target, servername: target.host, ALPNProtocols: ['http/1.1'] })
    : connectTcp({ ...target, noDelay: true, onread });
  if (secure) socket.on('data', (part: Buffer) => counter.take(part));
  socket.on('error', () => socket.destroy());
  socket.on('close', events.onClose);
  const lines = Object.entries({ Host: url.host, ...headers }).map(([name, value]) => `${name}: ${value}\r\n`);
  // HTTP/1.0 has the answer without chunk framing, ended by the connection's end.
  const version = method === 'GET' ? 'HTTP/1.0' : 'HTTP/1.1';
  socket.write(`${method} ${url.pathname}${url.search} ${version}\r\n${lines.join('')}\r\n`);
  return { socket, destroy: () => socket.destroy() };
}
