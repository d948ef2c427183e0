import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { PEER_PATHS } from '@/wire';
import { startTestPeer, UNKEPT } from '../peer-for-tests';
import { hostOf, knowsHost } from './known-hosts';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;
const SHORT = { perAddress: 8, inAll: 20, headMs: 500, bodyIdleMs: 300 };

describe('strangers at the door', () => {
  let peer: TestPeer;
  let console: Server;
  let seen: { headers: Record<string, unknown>; bytes: number }[];
  const sockets: Socket[] = [];
  beforeEach(async () => {
    seen = [];
    console = createServer((request, response) => {
      const entry = { headers: { ...request.headers }, bytes: 0 };
      seen.push(entry);
      request.on('data', (part: Buffer) => (entry.bytes += part.length));
      request.on('end', () => response.end('from the console'));
      request.on('error', () => undefined);
    }).listen(0, '127.0.0.1');
    await once(console, 'listening');
    peer = await startTestPeer({
      ...{ consolePort: (console.address() as AddressInfo).port, strangers: SHORT, doorSecret: 'secret' },
      hosts: ['bench.example'],
    });
  });
  afterEach(() => {
    for (const socket of sockets.splice(0)) socket.destroy();
    peer.close();
    console.closeAllConnections();
    console.close();
  });

  const open = async (text = '', from?: string) => {
    const socket = connect({
      port: Number(new URL(peer.origin).port),
      host: '127.0.0.1',
      ...(from && { localAddress: from }),
    });
    sockets.push(socket);
    socket.on('error', () => undefined);
    await once(socket, 'connect');
    if (text !== '') socket.write(text);
    return socket;
  };
  const ended = (socket: Socket) =>
    socket.destroyed ? Promise.resolve() : new Promise((resolve) => socket.resume().once('close', resolve));
  const answered = async (head: string) => {
    const socket = await open(head);
    let said = '';
    socket.on('data', (part: Buffer) => (said += part.toString()));
    while (!said.includes('\r\n\r\n') && !socket.destroyed) await new Promise((resolve) => setTimeout(resolve, 5));
    return said;
  };

  it.each([
    ['says nothing', ''],
    ['sends half a line', 'GET / HT'],
    ['sends half a head', 'GET /peer/v1/info HTTP/1.1\r\nHost: x\r\n'],
    ['sends half an upload head', `POST ${PEER_PATHS.up}?session=x HTTP/1.1\r\nHost: x\r\n`],
  ])('one that %s is closed when its time is up', async (_, text) => {
    await ended(await open(text));
  });

  it('one that goes on a letter at a time is closed all the same', async () => {
    const socket = await open('GET / HTTP/1.1\r\nX: ');
    const drip = setInterval(() => socket.write('x'), 20);
    await ended(socket);
    clearInterval(drip);
  });

  it('one that announces a body and sends none is closed, to the console and to the peer', async () => {
    const host = `Host: localhost\r\nContent-Length: 1000\r\n\r\n`;
    await ended(await open(`POST /api/v1/runs HTTP/1.1\r\n${host}half`));
    const { session } = await peer.open();
    await ended(await open(`POST ${PEER_PATHS.up}?session=${session}&stream=0 HTTP/1.1\r\n${host}half`));
  });

  it('one that has been answered has its time again for the next head, and no more', async () => {
    const socket = await open('GET /peer/v1/info HTTP/1.1\r\nHost: x\r\n\r\n');
    await once(socket, 'data');
    socket.write('GET /peer/v1/info HTTP/1.1\r\nHost: x\r\n\r\n');
    await once(socket, 'data');
    socket.write('GET /half');
    await ended(socket);
  });

  it('of too many from one address the oldest go, and a newcomer is served', async () => {
    const held = await Promise.all(Array.from({ length: SHORT.perAddress }, () => open('GET /', '127.0.0.9')));
    await open('GET /', '127.0.0.9');
    await ended(held[0]!);
    expect(held.slice(2).some((socket) => !socket.destroyed)).toBe(true);
    expect((await fetch(`${peer.origin}${PEER_PATHS.info}`, UNKEPT)).status).toBe(200);
  });

  it('of too many in all the oldest go, from whatever address', async () => {
    for (let from = 10; from < 40; from += 1) await open('GET /', `127.0.0.${from}`);
    expect((await fetch(`${peer.origin}${PEER_PATHS.info}`, UNKEPT)).status).toBe(200);
    await ended(sockets[0]!);
  });

  it('whoever has a session is no stranger: it stays while others come and go', async () => {
    const { session } = await peer.open();
    const control = await peer.socket(PEER_PATHS.control, session);
    for (let other = 0; other < 3 * SHORT.perAddress; other += 1) await open('GET /');
    // Until the last of them, which came long after it, has run out of its time.
    await Promise.all(sockets.map(ended));
    expect(control.readyState).toBe(control.OPEN);
    control.close();
  });

  it('two lengths in one head are refused, by whichever reader gets it', async () => {
    const { session } = await peer.open();
    const lengths = 'Content-Length: 4\r\nContent-Length: 9\r\n\r\nabcdefghi';
    for (const path of [`${PEER_PATHS.up}?session=${session}&stream=0`, '/api/v1/runs'])
      expect(await answered(`POST ${path} HTTP/1.1\r\nHost: localhost\r\n${lengths}`)).toMatch(/^HTTP\/1\.1 400 /);
  });

  it('a body larger than any run is refused before it is taken, and one without a length while it comes', async () => {
    const length = await answered('POST /api/v1/runs HTTP/1.1\r\nHost: localhost\r\nContent-Length: 999999999\r\n\r\n');
    expect(length).toMatch(/^HTTP\/1\.1 413 /);
    expect(length).toContain('"code":"body-too-large"');
    // Of one that is only a little too large the refusal can be read by whoever writes all of it first.
    const little = 'x'.repeat(5_000_000);
    const whole = `POST /api/v1/runs HTTP/1.1\r\nHost: localhost\r\nContent-Length: ${little.length}\r\n\r\n${little}`;
    expect(await answered(whole)).toContain('"code":"body-too-large"');
    const socket = await open('POST /api/v1/runs HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\n\r\n');
    const part = `${(65_536).toString(16)}\r\n${'x'.repeat(65_536)}\r\n`;
    const pour = () => {
      for (let times = 0; times < 400 && !socket.destroyed; times += 1) if (!socket.write(part)) break;
    };
    socket.on('drain', pour);
    pour();
    await ended(socket);
    expect(seen.at(-1)!.bytes).toBeLessThanOrEqual(4 * 1024 * 1024);
    // The console is not left waiting for the rest.
    await expect(new Promise((resolve) => console.getConnections((_, open) => resolve(open)))).resolves.toBeLessThan(2);
  });

  it('what a stranger claims of himself is taken away, and the console sees that it came through the door', async () => {
    const claims = 'X-Forwarded-For: 127.0.0.1\r\nForwarded: for=127.0.0.1\r\nX-Bent-Straw-Door: guess\r\n';
    await answered(`GET /j HTTP/1.1\r\nHost: localhost\r\n${claims}\r\n`);
    expect(seen[0]!.headers).toMatchObject({ 'x-bent-straw-door': 'secret' });
    expect(seen[0]!.headers['forwarded']).toBeUndefined();
    expect(String(seen[0]!.headers['x-forwarded-for'])).toMatch(/127\.0\.0\.1$/);
  });

  it('a name that is not the console’s own is turned away (DNS rebinding), and one that was given is let in', async () => {
    const said = await answered('GET / HTTP/1.1\r\nHost: attacker.example\r\n\r\n');
    expect(said).toMatch(/^HTTP\/1\.1 421 /);
    expect(said).toContain('"code":"host-unknown"');
    expect(await answered('GET / HTTP/1.1\r\nHost: bench.example:4870\r\n\r\n')).toMatch(/^HTTP\/1\.1 200 /);
    // A peer is reached by whatever name somebody gave it: its tickets protect it.
    expect(await answered('GET /peer/v1/info HTTP/1.1\r\nHost: outside.example\r\n\r\n')).toMatch(/^HTTP\/1\.1 200 /);
  });

  it('behind a proxy that was named, it is the proxy that says who asks and for what name', async () => {
    peer.close();
    const consolePort = (console.address() as AddressInfo).port;
    peer = await startTestPeer({ consolePort, proxies: ['127.0.0.1'], hosts: ['bench.example'] });
    const forwarded = 'X-Forwarded-For: 10.0.0.1, 198.51.100.7\r\nX-Forwarded-Host: bench.example\r\n';
    expect(await answered(`GET / HTTP/1.1\r\nHost: 10.1.1.1\r\n${forwarded}\r\n`)).toMatch(/^HTTP\/1\.1 200 /);
    expect(String(seen[0]!.headers['x-forwarded-for'])).toMatch(/^198\.51\.100\.7/);
    expect(seen[0]!.headers['host']).toBe('bench.example');
  });
});

describe('the host of a header', () => {
  it('is read without its port, IPv6 too, and is none where it is odd', () => {
    expect(hostOf('Bench.Example:4870')).toBe('bench.example');
    expect(hostOf('[::1]:4870')).toBe('::1');
    expect(hostOf('bench.example.')).toBe('bench.example');
    for (const odd of [undefined, '', 'a b', 'x@y', 'host:port', '[::1'])
      expect([hostOf(odd), knowsHost(odd, [])]).toEqual([null, false]);
  });

  it('is known for this machine’s own names and addresses', () => {
    for (const own of ['localhost:4870', '127.0.0.1', '127.9.9.9:1', '[::1]:4870'])
      expect(knowsHost(own, [])).toBe(true);
    expect(knowsHost('localhost.attacker.example', [])).toBe(false);
    expect(knowsHost('127.0.0.1.attacker.example', [])).toBe(false);
  });
});
