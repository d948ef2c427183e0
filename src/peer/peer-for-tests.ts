import { generateKeyPairSync, randomUUID, type KeyObject } from 'node:crypto';
import { once } from 'node:events';
import type { IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { WebSocket } from 'ws';
import { PEER_PATHS, type ControlMessage, type SessionOpened } from '@/wire';
import { signTicket, type TicketClaims } from '@/wire/peer/ticket';
import { createFrontDoor, type FrontDoorOptions } from './front/front-door';
import { Peer } from './http/peer';
import type { OnPeerEvent } from './peer-events';
import type { ChannelHost } from './udp/channel-host';
import type { StampReflector } from './udp/stamp-reflector';

const { privateKey, publicKey } = generateKeyPairSync('ed25519');

export interface TestPeerOptions {
  readonly consolePort?: number | null;
  readonly mostSessions?: number;
  readonly reflector?: StampReflector | null;
  readonly channels?: ChannelHost | null;
  readonly tls?: FrontDoorOptions['tls'];
  readonly identity?: KeyObject | null;
  readonly strangers?: FrontDoorOptions['strangers'];
  readonly hosts?: readonly string[];
  readonly proxies?: readonly string[];
  readonly doorSecret?: string;
  readonly toHttps?: boolean;
  readonly onEvent?: OnPeerEvent;
}

/** Asks over a connection of its own: one that is kept may be closed from the other side at this very moment. */
export const UNKEPT = { headers: { connection: 'close' } } as const;

/** A real peer on a free loopback port, with a console key of its own; for tests of this folder. */
export async function startTestPeer({
  consolePort = null,
  mostSessions = 4,
  reflector = null,
  channels = null,
  tls = null,
  identity = null,
  ...door
}: TestPeerOptions = {}) {
  let wallMs = 1_700_000_000_000;
  const peer = new Peer({
    name: 'test peer',
    version: '0.0.0',
    trusted: [publicKey],
    mostSessions,
    reflector,
    channels,
    identity,
    onEvent: door.onEvent,
    wallMs: () => wallMs,
    monotonicMs: () => performance.now(),
  });
  const front = createFrontDoor(peer, { consolePort, tls, ...door });
  front.listen(0, '127.0.0.1');
  await once(front, 'listening');
  const origin = `http://127.0.0.1:${(front.address() as AddressInfo).port}`;

  const ticket = (claims: Partial<TicketClaims> = {}) =>
    signTicket(
      {
        id: randomUUID(),
        runId: 'run',
        // Each a device of its own: a new ticket of the same one ends what that still holds.
        deviceId: randomUUID(),
        peerKey: null,
        directions: ['down', 'up'],
        limits: { seconds: 30, bytes: 1e9, streams: 2 },
        issuedAtMs: wallMs,
        expiresAtMs: wallMs + 60_000,
        ...claims,
      },
      privateKey,
    );
  const postTicket = (text: string | null) =>
    fetch(`${origin}${PEER_PATHS.sessions}${text === null ? '' : `?ticket=${text}`}`, { method: 'POST', ...UNKEPT });

  return {
    origin,
    ticket,
    postTicket,
    advanceMs: (ms: number) => (wallMs += ms),
    async open(claims: Partial<TicketClaims> = {}): Promise<SessionOpened> {
      return (await (await postTicket(ticket(claims))).json()) as SessionOpened;
    },
    url: (path: string, session: string, stream?: number | string) =>
      `${origin}${path}?session=${session}${stream === undefined ? '' : `&stream=${stream}`}`,
    async socket(path: string, session: string): Promise<WebSocket> {
      const socket = new WebSocket(`${origin.replace('http', 'ws')}${path}?session=${session}`);
      await once(socket, 'open');
      return socket;
    },
    /** The HTTP answer to a WebSocket that is not let in. */
    async refusal(path: string): Promise<{ status: number; body: string }> {
      const socket = new WebSocket(`${origin.replace('http', 'ws')}${path}`);
      const [, response] = (await once(socket, 'unexpected-response')) as [unknown, IncomingMessage];
      let body = '';
      for await (const part of response) body += String(part);
      return { status: response.statusCode!, body };
    },
    close: () => {
      peer.close();
      front.closeAllConnections();
      front.close();
    },
  };
}

/** Waits for a control message that fits; rejects when the socket closes first. */
export function controlMessage(socket: WebSocket, fits: (message: ControlMessage) => boolean): Promise<ControlMessage> {
  return new Promise((resolve, reject) => {
    socket.on('message', (data: Buffer) => {
      const message = JSON.parse(data.toString()) as ControlMessage;
      if (fits(message)) resolve(message);
    });
    socket.on('close', () => reject(new Error('the control socket closed first')));
  });
}
