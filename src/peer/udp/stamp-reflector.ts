import { createSocket, type RemoteInfo, type Socket } from 'node:dgram';
import { randomBytes, randomInt } from 'node:crypto';
import { decodeSenderPacket, encodeReflectorPacket, peekSessionId, type StampRejection } from '@/wire/peer/stamp';
import { plainAddress } from '@/wire/address';
import type { UdpCount } from '../session/session';

/** Who may be answered: a ticketed session, known by its identifier and address. */
export interface StampSession extends UdpCount {
  readonly sessionId: number;
  /** For authenticated mode; null for plain. */
  readonly key: Uint8Array | null;
}

interface Entry {
  readonly address: string;
  readonly key: Uint8Array | null;
  /** Whether so many bytes may still be answered. */
  readonly spend: (bytes: number) => boolean;
  /** Numbers its replies. */
  sequence: number;
  /** The sender's numbers that have come: a packet that came twice is one packet. */
  readonly distinct: Set<number>;
}

export type Unanswered = StampRejection | 'stranger' | 'limit';

export interface StampReflectorOptions {
  readonly port: number;
  readonly host?: string | undefined;
  /** Addresses that may send plain packets without a ticket: other equipment that speaks STAMP. */
  readonly openTo: readonly string[];
  /** Whoever proves this key needs no ticket either; null: there is none. */
  readonly sharedKey?: Uint8Array | null;
  readonly wallMs: () => number;
}

const KEY_BYTES = 32;
/** This machine's clock is not known to be set right to better than this. */
const CLOCK_ERROR = { synchronised: false, errorMs: 1000 } as const;
/** Node does not tell the TTL of what it receives: RFC 8762 senders send 255. */
const UNKNOWN_TTL = 255;
const MOST_OPEN_SOURCES = 64;
/** More than a paced run of the fastest kind sends. */
const MOST_NUMBERS = 1_000_000;
const BUFFER_BYTES = 4 * 1024 * 1024;

/**
 * A STAMP session-reflector (RFC 8762), stateful: it numbers its own replies, so that a sender can tell in which
 * direction a packet was lost. It answers ticketed sources, and those it was opened to, with packets of the same size.
 */
export class StampReflector {
  readonly #socket: Socket;
  readonly #sessions = new Map<number, Entry>();
  readonly #open = new Map<string, Entry>();
  readonly #unanswered = new Map<Unanswered, number>();

  private constructor(
    socket: Socket,
    private readonly options: StampReflectorOptions,
  ) {
    this.#socket = socket;
    socket.on('message', (bytes, from) => this.#answer(bytes, from));
  }

  /** Rejects when the port is taken. */
  static async start(options: StampReflectorOptions): Promise<StampReflector> {
    const socket = createSocket({ type: options.host === undefined ? 'udp6' : 'udp4', ipv6Only: false });
    await new Promise<void>((resolve, reject) => {
      socket.once('error', reject);
      socket.bind(options.port, options.host, () => {
        socket.off('error', reject);
        resolve();
      });
    });
    // What the system does not allow is not insisted on.
    try {
      socket.setRecvBufferSize(BUFFER_BYTES);
      socket.setSendBufferSize(BUFFER_BYTES);
    } catch {
      // The smaller buffers of the system serve too.
    }
    socket.on('error', () => undefined);
    return new StampReflector(socket, options);
  }

  get port(): number {
    return this.#socket.address().port;
  }

  /** How many packets were not answered, by reason. */
  get unanswered(): ReadonlyMap<Unanswered, number> {
    return this.#unanswered;
  }

  /** Lets a ticketed client in, from the address from which it opened its session. */
  admit(address: string, authenticated: boolean, spend: (bytes: number) => boolean): StampSession {
    let sessionId = 0;
    do sessionId = randomInt(1, 65_536);
    while (this.#sessions.has(sessionId));
    const key = authenticated ? randomBytes(KEY_BYTES) : null;
    const entry: Entry = { address: plainAddress(address), key, spend, sequence: 0, distinct: new Set() };
    this.#sessions.set(sessionId, entry);
    return { sessionId, key, received: () => entry.distinct.size, close: () => this.#sessions.delete(sessionId) };
  }

  #entryFor(bytes: Buffer, from: RemoteInfo): Entry | null {
    const address = plainAddress(from.address);
    for (const authenticated of [false, true]) {
      const entry = this.#sessions.get(peekSessionId(bytes, authenticated));
      if (entry !== undefined && (entry.key !== null) === authenticated && entry.address === address) return entry;
    }
    const key = this.#provenKey(bytes);
    if (key === null && !this.options.openTo.includes(address)) return null;
    const source = `${address} ${from.port} ${key === null ? 'open' : 'proven'}`;
    const known = this.#open.get(source);
    if (known !== undefined) return known;
    const [oldest] = this.#open.keys();
    if (this.#open.size >= MOST_OPEN_SOURCES && oldest !== undefined) this.#open.delete(oldest);
    const entry: Entry = { address, key, spend: () => true, sequence: 0, distinct: new Set() };
    this.#open.set(source, entry);
    return entry;
  }

  #provenKey(bytes: Buffer): Uint8Array | null {
    const key = this.options.sharedKey ?? null;
    return key !== null && decodeSenderPacket(bytes, key).ok ? key : null;
  }

  #leave(why: Unanswered): void {
    this.#unanswered.set(why, (this.#unanswered.get(why) ?? 0) + 1);
  }

  #answer(bytes: Buffer, from: RemoteInfo): void {
    const receivedMs = this.options.wallMs();
    const entry = this.#entryFor(bytes, from);
    if (entry === null) return this.#leave('stranger');
    const decoded = decodeSenderPacket(bytes, entry.key);
    if (!decoded.ok) return this.#leave(decoded.why);
    if (!entry.spend(2 * bytes.byteLength)) return this.#leave('limit');
    const reply = encodeReflectorPacket(
      {
        sequence: entry.sequence,
        sentMs: this.options.wallMs(),
        error: CLOCK_ERROR,
        sessionId: decoded.packet.sessionId,
        receivedMs,
        senderTtl: UNKNOWN_TTL,
      },
      bytes,
      entry.key,
    );
    entry.sequence += 1;
    if (entry.distinct.size < MOST_NUMBERS) entry.distinct.add(decoded.packet.sequence);
    this.#socket.send(reply, from.port, from.address, () => undefined);
  }

  close(): Promise<void> {
    return new Promise((resolve) => this.#socket.close(() => resolve()));
  }
}
