import type { Socket } from 'node:net';
import { Duplex } from 'node:stream';
import type { UploadSink } from '../http/bulk-up';
import { readUploadHead } from './upload-head';
import { takeOver } from './raw-connection';

/** What an upload connection needs of the front door. */
export interface UploadHost {
  /** A connection that says nothing for so long between or within uploads is closed, ms. */
  readonly idleMs: number;
  /** A connection was taken over; the socket that the server made for it is gone. */
  opened(socket: Socket): void;
  /** A place for the bytes of one request, or the whole answer that refuses it. */
  accept(url: URL, contentLength: number, socket: Socket): UploadSink | { readonly refusal: string };
  /** Gives a connection to the full HTTP server. */
  serve(connection: Duplex): void;
  /** Speaks TLS on a connection; null where this peer has no certificate. */
  readonly secure: ((socket: Socket) => void) | null;
}

/** The first byte of a TLS connection: a handshake record (RFC 8446 §5.1). No HTTP method begins with it. */
const TLS_HANDSHAKE = 22;
const CONTINUE = 'HTTP/1.1 100 Continue\r\n\r\n';

/** A connection of which some bytes have been read already, as the HTTP server takes it. */
class HandedOn extends Duplex {
  constructor(private readonly socket: Socket) {
    super();
    socket.on('close', () => this.destroy());
    socket.on('end', () => this.push(null));
    socket.on('error', () => this.destroy());
  }

  get remoteAddress() {
    return this.socket.remoteAddress;
  }

  get remotePort() {
    return this.socket.remotePort;
  }

  get localAddress() {
    return this.socket.localAddress;
  }

  get localPort() {
    return this.socket.localPort;
  }

  /** So that a body that stands still is noticed. */
  get bytesRead() {
    return this.socket.bytesRead;
  }

  receive(bytes: Buffer): void {
    // Copied: the buffer below is used again.
    if (!this.push(Buffer.from(bytes))) this.socket.pause();
  }

  override _read(): void {
    this.socket.resume();
  }

  override _write(chunk: Buffer, _encoding: BufferEncoding, done: (error?: Error | null) => void): void {
    this.socket.write(chunk, done);
  }

  override _final(done: (error?: Error | null) => void): void {
    this.socket.end(() => done());
  }

  override _destroy(error: Error | null, done: (error: Error | null) => void): void {
    this.socket.destroy();
    done(error);
  }
}

/**
 * A connection on which uploads come, one after the other. The bytes of a body are counted where they lie; anything that
 * is not such a request goes to the HTTP server, and the connection with it.
 */
class UploadConnection {
  #head: Buffer = Buffer.alloc(0);
  #left = 0;
  #sink: UploadSink | null = null;
  #keepAlive = true;
  #handedOn: HandedOn | null = null;
  socket: Socket | null = null;

  constructor(private readonly host: UploadHost) {}

  take(bytes: Buffer): void {
    if (this.#handedOn !== null) return this.#handedOn.receive(bytes);
    let rest = bytes;
    while (rest.length > 0) {
      if (this.#sink === null) {
        const begun = this.#begin(rest);
        if (begun === null) return;
        rest = begun;
      } else {
        const body = Math.min(this.#left, rest.length);
        this.#left -= body;
        rest = rest.subarray(body);
        if (!this.#sink.count(body)) return this.#close();
        if (this.#left === 0) this.#finish();
      }
    }
  }

  /** Reads a head; gives what follows it, or null when there is nothing more to do with these bytes. */
  #begin(bytes: Buffer): Buffer | null {
    this.#head = Buffer.concat([this.#head, bytes]);
    const head = readUploadHead(this.#head);
    if (head === 'partly') return null;
    const all = this.#head;
    this.#head = Buffer.alloc(0);
    if (head === null) {
      // From here on the HTTP server and what watches strangers look after it.
      this.socket!.setTimeout(0);
      this.#handedOn = new HandedOn(this.socket!);
      this.host.serve(this.#handedOn);
      this.#handedOn.receive(all);
      return null;
    }
    const accepted = this.host.accept(head.url, head.contentLength, this.socket!);
    if ('refusal' in accepted) {
      this.socket!.end(accepted.refusal);
      return null;
    }
    if (head.expectsContinue) this.socket!.write(CONTINUE);
    this.#sink = accepted;
    this.#left = head.contentLength;
    this.#keepAlive = head.keepAlive;
    if (this.#left === 0) this.#finish();
    return all.subarray(head.headBytes);
  }

  #finish(): void {
    const answer = this.#sink!.finish(this.#keepAlive);
    this.#sink = null;
    if (this.#keepAlive) this.socket!.write(answer);
    else this.socket!.end(answer);
  }

  #close(): void {
    this.socket!.destroy();
  }

  closed(): void {
    this.#sink?.release();
    this.#sink = null;
  }
}

/**
 * Looks at the first bytes of a connection: an upload is taken over, everything else is left to the HTTP server, over TLS
 * where that is what the client speaks: one port serves both.
 */
export function sortConnection(socket: Socket, host: UploadHost): void {
  const giveUp = () => socket.destroy();
  socket.once('error', giveUp);
  socket.once('data', (first: Buffer) => {
    socket.off('error', giveUp);
    socket.pause();
    if (first[0] === TLS_HANDSHAKE) {
      if (host.secure === null) return socket.destroy();
      socket.unshift(first);
      return host.secure(socket);
    }
    const head = readUploadHead(first);
    if (head !== null && head !== 'partly') {
      const connection = new UploadConnection(host);
      const raw = takeOver(socket, (bytes) => connection.take(bytes));
      if (raw !== null) {
        connection.socket = raw;
        host.opened(raw);
        raw.on('error', () => raw.destroy());
        raw.setTimeout(host.idleMs, () => raw.destroy());
        raw.on('close', () => connection.closed());
        connection.take(first);
        raw.resume();
        return;
      }
    }
    socket.unshift(first);
    host.serve(socket);
    socket.resume();
  });
}
