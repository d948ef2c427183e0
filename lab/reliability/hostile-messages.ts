import { randomBytes, randomInt } from 'node:crypto';
import { createSocket } from 'node:dgram';
import { connect } from 'node:net';

/** Where hostile messages go. `ticket` and `cookie`: real ones, to be spoilt. */
export interface Target {
  readonly port: number;
  readonly code: string;
  readonly udpPort: number;
}

/** Whoever is hostile comes from an address of his own: what is counted by address is counted for him. */
const FROM = '127.0.0.66';

const chosen = <Value>(values: readonly Value[]) => values[randomInt(values.length)]!;
const rubbish = (most: number) => randomBytes(randomInt(1, most));
const word = () => rubbish(40).toString('base64url');

const PATHS = [
  '/',
  '/j/K4M9XQ',
  '/api/v1/runs',
  '/api/v1/lines',
  '/runs/x',
  '/sign-in',
  '/here/x.y',
  '/ledger?page=-1',
];
const PEER_PATHS = ['info', 'sessions', 'down', 'up', 'control', 'probe', 'udp', 'channel', 'receipt'];
const path = () => (randomInt(2) === 0 ? chosen(PATHS) : `/peer/v1/${chosen(PEER_PATHS)}?ticket=${word()}.${word()}`);

/** A deep or odd document, or one that only begins. */
function oddJson(): string {
  return chosen([
    () => '['.repeat(randomInt(1, 20_000)),
    () => JSON.stringify({ code: word(), deviceId: null, deviceName: 'x'.repeat(randomInt(5000)) }),
    () => '{"__proto__":{"polluted":1},"constructor":{"prototype":{}}}',
    () => `{"code":${'9'.repeat(randomInt(1, 400))}}`,
    () => rubbish(2000).toString('latin1'),
    () => JSON.stringify({ outcome: 'finished', samples: { probes: { sentMs: [1e308, -1, null] } }, facts: 7 }),
  ])();
}

const SDP = () =>
  JSON.stringify({
    type: 'offer',
    sdp: `v=0\r\no=- ${word()} 2 IN IP4 127.0.0.1\r\n${Array.from({ length: randomInt(200) }, (_, index) => `a=candidate:${index} 1 udp 1 203.0.113.${index % 250} ${randomInt(65535)} typ host`).join('\r\n')}`,
  });

type Message = (target: Target) => string | Buffer;

const HTTP: Readonly<Record<string, Message>> = {
  'rubbish instead of a head': () => rubbish(4000),
  'a head that breaks off': () => `GET ${path()} HTTP/1.1\r\nHost: 127.0.0.1\r\nX-A: ${word()}`,
  'a head with too much in it': () =>
    `GET ${path()} HTTP/1.1\r\nHost: 127.0.0.1\r\n${`X-${word()}: ${word()}\r\n`.repeat(randomInt(1, 600))}\r\n`,
  'two lengths': () =>
    `POST /api/v1/runs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 3\r\nContent-Length: ${randomInt(90)}\r\n\r\n{}x`,
  'a length and chunks': () =>
    'POST /api/v1/runs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 4\r\nTransfer-Encoding: chunked\r\n\r\nzz\r\n',
  'a foreign host': () => `GET ${path()} HTTP/1.1\r\nHost: ${word()}.example\r\n\r\n`,
  'spoilt cookies': () =>
    `GET ${chosen(PATHS)} HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: bent-straw-device=${word()}.${word()}; bent-straw-sign-in=${word()}; bent-straw-here=${word()}.\r\n\r\n`,
  'odd JSON': ({ code }) => {
    const body = randomInt(2) === 0 ? oddJson() : oddJson().replace('K4M9XQ', code);
    const to = chosen(['/api/v1/runs', '/api/v1/runs/x/hand-in', '/api/v1/runs/x/alive', '/api/v1/turns/x/withdraw']);
    return `POST ${to} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: ${Buffer.byteLength(body)}\r\n\r\n${body}`;
  },
  'spoilt tickets': () =>
    `GET /peer/v1/${chosen(PEER_PATHS)}?ticket=${word()}.${word()} HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n`,
  'offers with many candidates': () => {
    const body = SDP();
    return `POST /peer/v1/channel?ticket=${word()} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: ${Buffer.byteLength(body)}\r\n\r\n${body}`;
  },
  'frames of rubbish': () =>
    Buffer.concat([
      Buffer.from(
        `GET /peer/v1/${chosen(['control', 'probe'])}?ticket=${word()} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: ${randomBytes(16).toString('base64')}\r\n\r\n`,
      ),
      rubbish(3000),
    ]),
};

/** What is answered to somebody who should see neither a stack nor a path of the machine. */
const STACK = /\n\s+at .+:\d+:\d+|node_modules|\/work\//;
/** What is not answered by then waits for more to come: the sender goes away in the middle. */
const ANSWER_WITHIN_MS = 500;

function send(port: number, message: string | Buffer): Promise<string> {
  return new Promise((resolve) => {
    let answer = '';
    const socket = connect({ port, host: '127.0.0.1', localAddress: FROM }, () => socket.write(message));
    socket.setTimeout(ANSWER_WITHIN_MS, () => socket.destroy());
    socket.on('data', (part: Buffer) => {
      answer += part.toString('latin1');
      // A whole answer is there, or enough of it: the connection is dropped, rudely.
      if (answer.length > 2000 || /\r\n\r\n[^]+/.test(answer)) socket.destroy();
    });
    socket.on('error', () => undefined);
    socket.on('close', () => resolve(answer));
  });
}

/** Counts a kind of message. */
export interface HostileRow {
  readonly kind: string;
  sent: number;
  /** How many were answered by what. */
  readonly statuses: Map<string, number>;
  stacks: number;
}

const AT_ONCE = 8;

/** Sends `count` hostile messages of all kinds, eight at a time. */
export async function sendHostile(target: Target, count: number): Promise<HostileRow[]> {
  const udp = createSocket('udp4');
  await new Promise<void>((resolve) => udp.bind(0, FROM, () => resolve()));
  const stamp: HostileRow = { kind: 'STAMP packets of rubbish', sent: 0, statuses: new Map(), stacks: 0 };
  const rows = [...Object.keys(HTTP).map((kind): HostileRow => ({ ...stamp, kind, statuses: new Map() })), stamp];
  let left = count;
  const sender = async () => {
    while (left > 0) {
      left -= 1;
      const row = rows[left % rows.length]!;
      row.sent += 1;
      const message = HTTP[row.kind];
      if (message === undefined) {
        await new Promise<void>((resolve) => udp.send(rubbish(1400), target.udpPort, '127.0.0.1', () => resolve()));
        continue;
      }
      const answer = await send(target.port, message(target));
      const status = /^HTTP\/1\.1 (\d{3})/.exec(answer)?.[1] ?? 'closed';
      row.statuses.set(status, (row.statuses.get(status) ?? 0) + 1);
      if (STACK.test(answer)) row.stacks += 1;
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, sender));
  udp.close();
  return rows;
}
