import type { KeyObject } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { MOST_KNOCKS } from '@/core';
import {
  done,
  failed,
  MOST_STREAM_NUMBER,
  PEER_PATHS,
  PEER_PREFIX,
  type Outcome,
  type PeerFaultCode,
  type PeerInfo,
  type ChannelAnswer,
  type KnockAnswer,
  type SessionOpened,
  type UdpAdmission,
} from '@/wire';
import type { Direction, Session } from '../session/session';
import { SessionRegistry, type SessionRegistryOptions } from '../session/session-registry';
import { answerFault, answerJson, OPEN_HEADERS, rawFault } from './answer';
import { knockAt } from './knock';
import { openUpload, receiveBulk, type UploadSink } from './bulk-up';
import { sendBulk } from './bulk-down';
import { readClientAddress } from '@/wire/address';
import { checkTicket, showIdentity } from '@/wire/peer/ticket';
import { describePeer, describeToKnown, type PeerIdentity } from './peer-info';
import { PeerSockets } from './peer-sockets';
import { clientAddressOf } from '../front/forwarded';
import { offersChannel, withOwnCandidates } from '../udp/own-candidates';
import { interfaceBps } from '../kernel/interface-speed';
import type { ChannelHost } from '../udp/channel-host';
import type { StampReflector } from '../udp/stamp-reflector';
import { readShortBody } from './short-body';

const METHODS: Readonly<Record<string, 'GET' | 'POST'>> = {
  [PEER_PATHS.info]: 'GET',
  [PEER_PATHS.down]: 'GET',
  [PEER_PATHS.up]: 'POST',
  [PEER_PATHS.sessions]: 'POST',
  [PEER_PATHS.udp]: 'POST',
  [PEER_PATHS.channel]: 'POST',
  [PEER_PATHS.receipt]: 'GET',
  [PEER_PATHS.knock]: 'POST',
};

/** An offer of one data channel has about 700 bytes. */
const LONGEST_OFFER = 16_384;
/** A browser offers once a run, and once more where the first came to nothing. */
const MOST_OFFERS = 3;
/** A port that says nothing for so long is silent; all that may be asked for fit into a session that nobody holds, ms. */
const KNOCK_PATIENCE_MS = 1500;
/** What an offer is charged with: the handshakes that follow it. */
const OFFER_BYTES = 32 * 1024;

export interface PeerOptions extends SessionRegistryOptions, PeerIdentity {
  /** Proves that this is the same peer as before; null for one that proves nothing. */
  readonly identity?: KeyObject | null;
  /** Answers UDP probes; null while that is not enabled. */
  readonly reflector?: StampReflector | null;
  /** Opens data channels to browsers; null while that is not enabled. */
  readonly channels?: ChannelHost | null;
}

/** The measuring end: bulk out, bulk in, probe echo, counters, and the info document. Serves paths under /peer/v1/. */
export class Peer {
  readonly #sessions: SessionRegistry;
  readonly #sockets: PeerSockets;
  readonly #knocking = new WeakSet<Session>();

  constructor(private readonly options: PeerOptions) {
    this.#sessions = new SessionRegistry(options);
    this.#sockets = new PeerSockets(this.#sessions, options.monotonicMs);
  }

  serves(path: string): boolean {
    return path.startsWith(PEER_PREFIX);
  }

  /** Whether a request names a session that is open. */
  knows(url: URL): boolean {
    return this.#sessions.find(url.searchParams.get('session')).ok;
  }

  handle(url: URL, request: IncomingMessage, response: ServerResponse): void {
    const refuse = (code: PeerFaultCode, facts = {}) => answerFault(request, response, failed(code, facts).fault);
    if (request.method === 'OPTIONS') {
      response.writeHead(204, {
        ...OPEN_HEADERS,
        'Access-Control-Allow-Methods': 'GET, POST',
        'Access-Control-Max-Age': '600',
      });
      response.end();
      return;
    }
    const method = METHODS[url.pathname];
    if (method === undefined) return refuse('path-unknown');
    if (request.method !== method) return refuse('method-not-allowed');
    if (url.pathname === PEER_PATHS.info) return answerJson(response, 200, this.#identified(url));
    if (url.pathname === PEER_PATHS.sessions) return this.#open(url, request, response);
    if (url.pathname === PEER_PATHS.receipt) return this.#showReceipt(url, request, response);
    if (url.pathname === PEER_PATHS.channel) return void this.#openChannel(url, request, response);
    if (url.pathname === PEER_PATHS.knock) return void this.#knock(url, request, response);
    if (url.pathname === PEER_PATHS.udp) return this.#admitUdp(url, request, response);
    return this.#bulk(url.pathname === PEER_PATHS.down ? 'down' : 'up', url, request, response);
  }

  upgrade(url: URL, request: IncomingMessage, socket: Duplex, head: Buffer): void {
    this.#sockets.upgrade(url, request, socket, head);
  }

  /** The info document, signed for whoever sent a challenge along. */
  #identified(url: URL): PeerInfo {
    const { identity = null } = this.options;
    const shown = identity === null ? null : showIdentity(identity, url.searchParams.get('challenge') ?? '');
    const known = checkTicket(url.searchParams.get('ticket'), this.options.trusted, this.options.wallMs()).ok;
    return { ...this.#info(known), ...(shown !== null && { identity: shown }) };
  }

  #info(known: boolean): PeerInfo {
    const udp = (this.options.reflector ?? null) !== null;
    const dataChannel = (this.options.channels ?? null) !== null;
    const told = describePeer(this.options, { udp, dataChannel }, this.options);
    return known ? { ...told, ...describeToKnown(this.options, this.#sessions) } : told;
  }

  #open(url: URL, request: IncomingMessage, response: ServerResponse): void {
    const opened = this.#sessions.open(url.searchParams.get('ticket'), clientAddressOf(request) ?? null);
    if (!opened.ok) return answerFault(request, response, opened.fault);
    const { id, claims, seen } = opened.value;
    const client = readClientAddress(clientAddressOf(request));
    Object.assign(seen, client);
    const body: SessionOpened = {
      session: id,
      ...client,
      address: clientAddressOf(request) ?? null,
      interfaceBps: interfaceBps(request.socket.localAddress),
      limits: claims.limits,
      info: this.#info(true),
    };
    answerJson(response, 201, body);
  }

  /** Shows what was signed for a session to whoever knows its ticket: the console that gave it, and the client. */
  #showReceipt(url: URL, request: IncomingMessage, response: ServerResponse): void {
    const receipt = this.#sessions.receiptOf(url.searchParams.get('ticket') ?? '');
    if (receipt === null) return answerFault(request, response, failed('receipt-unknown').fault);
    answerJson(response, 200, { receipt });
  }

  /** Lets the client of a session send UDP probes from the address by which it asks. */
  #admitUdp(url: URL, request: IncomingMessage, response: ServerResponse): void {
    const found = this.#sessions.find(url.searchParams.get('session'));
    if (!found.ok) return answerFault(request, response, found.fault);
    const { reflector } = this.options;
    if (reflector === null || reflector === undefined) return answerFault(request, response, failed('udp-off').fault);
    const session = found.value;
    const authenticated = url.searchParams.get('authenticated') === '1';
    const stamp = reflector.admit(clientAddressOf(request) ?? '', authenticated, (bytes) => session.spend(bytes));
    session.attachUdp(stamp);
    const key = stamp.key === null ? null : Buffer.from(stamp.key).toString('base64url');
    answerJson(response, 201, { port: reflector.port, sessionId: stamp.sessionId, key } satisfies UdpAdmission);
  }

  /** Knocks at a port of whoever asks, and of nobody else: does it answer from here? One at a time, few in all. */
  async #knock(url: URL, request: IncomingMessage, response: ServerResponse): Promise<void> {
    const found = this.#sessions.find(url.searchParams.get('session'));
    if (!found.ok) return answerFault(request, response, found.fault);
    const session = found.value;
    const port = Number(url.searchParams.get('port') ?? NaN);
    if (!Number.isInteger(port) || port < 1 || port > 65_535)
      return answerFault(request, response, failed('port-malformed').fault);
    const { seen } = session;
    if (seen.knocks >= MOST_KNOCKS || this.#knocking.has(session))
      return answerFault(request, response, failed('limit-knocks', { limit: MOST_KNOCKS }).fault);
    seen.knocks += 1;
    this.#knocking.add(session);
    const address = clientAddressOf(request);
    const state = address === undefined ? 'silent' : await knockAt(address, port, KNOCK_PATIENCE_MS);
    this.#knocking.delete(session);
    answerJson(response, 200, { state } satisfies KnockAnswer);
  }

  /** Opens a data channel for the browser of a session; the body is its offer (SDP), the answer ours. */
  async #openChannel(url: URL, request: IncomingMessage, response: ServerResponse): Promise<void> {
    const refuse = (code: PeerFaultCode) => answerFault(request, response, failed(code).fault);
    const found = this.#sessions.find(url.searchParams.get('session'));
    if (!found.ok) return answerFault(request, response, found.fault);
    const { channels } = this.options;
    if (!channels?.hasRoom) return refuse('channel-off');
    const session = found.value;
    session.seen.offers += 1;
    if (session.seen.offers > MOST_OFFERS)
      return answerFault(request, response, failed('limit-offers', { limit: MOST_OFFERS }).fault);
    const offer = await readShortBody(request, LONGEST_OFFER);
    if (offer === null || !offersChannel(offer) || !session.spend(OFFER_BYTES)) return refuse('offer-malformed');
    const own = withOwnCandidates(offer, clientAddressOf(request) ?? '');
    const opened = await channels.open(own, (bytes) => session.spend(bytes)).catch(() => null);
    if (opened === null) return refuse('offer-malformed');
    if (session.ended) return opened.count.close();
    session.attachUdp(opened.count);
    answerJson(response, 201, { answer: opened.answer } satisfies ChannelAnswer);
  }

  /** The session and stream that a bulk request names, if it may have another stream. */
  #bulkOf(direction: Direction, url: URL): Outcome<{ session: Session; stream: number }, PeerFaultCode> {
    const id = url.searchParams.get('session');
    if (id === null) return failed('ticket-missing');
    const found = this.#sessions.find(id);
    if (!found.ok) return found;
    const session = found.value;
    const stream = Number(url.searchParams.get('stream') ?? NaN);
    const { limits, directions } = session.claims;
    if (!Number.isInteger(stream) || stream < 0 || stream > MOST_STREAM_NUMBER) return failed('stream-malformed');
    if (!directions.includes(direction)) return failed('direction-not-allowed', { direction });
    if (session.openStreams(direction) >= limits.streams) return failed('limit-streams', { limit: limits.streams });
    return done({ session, stream });
  }

  #bulk(direction: Direction, url: URL, request: IncomingMessage, response: ServerResponse): void {
    const found = this.#bulkOf(direction, url);
    if (!found.ok) return answerFault(request, response, found.fault);
    const { session, stream } = found.value;
    if (direction === 'down') {
      const wanted = url.searchParams.get('bytes');
      if (wanted !== null && !/^[1-9]\d{0,11}$/.test(wanted))
        return answerFault(request, response, failed('bytes-malformed').fault);
      sendBulk(request, response, session, stream, wanted === null ? null : Number(wanted));
    } else receiveBulk(request, response, session, stream);
  }

  /** An upload on a connection that is served without the HTTP server. */
  acceptUpload(url: URL, contentLength: number, socket: Socket): UploadSink | { readonly refusal: string } {
    const found = this.#bulkOf('up', url);
    if (!found.ok) return { refusal: rawFault(found.fault) };
    const { session, stream } = found.value;
    const opened = openUpload(session, stream, contentLength, socket, socket);
    return opened.ok ? opened.value : { refusal: rawFault(opened.fault) };
  }

  close(): void {
    this.#sessions.endAll();
  }
}
