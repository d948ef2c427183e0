import { once } from 'node:events';
import { connect, type Socket } from 'node:net';
import fc from 'fast-check';
import { PEER_PATHS } from '@/wire';
import { startTestPeer } from '../peer-for-tests';
import { readUploadHead } from './upload-head';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;

const head = (path: string, length: number, more = '') =>
  `POST ${path} HTTP/1.1\r\nHost: x\r\nContent-Length: ${length}\r\n${more}\r\n`;

describe('the head of an upload', () => {
  const text = head(`${PEER_PATHS.up}?session=s&stream=2`, 12);

  it('is read where it is complete', () => {
    expect(readUploadHead(Buffer.from(`${text}body`))).toMatchObject({
      contentLength: 12,
      headBytes: text.length,
      keepAlive: true,
      expectsContinue: false,
    });
  });

  it('is waited for, however it is cut', () => {
    fc.assert(
      fc.property(fc.nat(text.length - 1), (at) => {
        expect(readUploadHead(Buffer.from(text.slice(0, at)))).toBe('partly');
      }),
    );
  });

  it('is left to the HTTP server when it is anything else', () => {
    const upload = `${PEER_PATHS.up}?session=s`;
    for (const other of [
      'GET / HTTP/1.1\r\n\r\n',
      head('/api/v1/runs', 4),
      `POST ${upload} HTTP/1.1\r\nHost: x\r\nTransfer-Encoding: chunked\r\n\r\n`,
      head(upload, 4, 'Transfer-Encoding: chunked\r\n'),
      `POST ${upload} HTTP/1.1\r\nContent-Length: -4\r\n\r\n`,
      `POST ${upload} HTTP/1.0\r\nContent-Length: 4\r\n\r\n`,
      `POST ${upload} HTTP/1.1\r\n${'x'.repeat(17_000)}`,
    ])
      expect(readUploadHead(Buffer.from(other))).toBeNull();
  });

  it('never makes the reader throw', () => {
    fc.assert(
      fc.property(fc.string(), (rest) => {
        expect(() => readUploadHead(Buffer.from(`POST ${PEER_PATHS.up}?${rest}\r\n\r\n`))).not.toThrow();
      }),
    );
  });
});

describe('a connection that uploads', () => {
  let peer: TestPeer;
  let client: Socket;
  let said = '';
  beforeEach(async () => {
    peer = await startTestPeer();
    client = connect(Number(new URL(peer.origin).port), '127.0.0.1');
    said = '';
    client.on('data', (part) => (said += part.toString()));
    client.on('error', () => undefined);
    await once(client, 'connect');
  });
  afterEach(() => {
    client.destroy();
    peer.close();
  });

  const answered = async (count: number) => {
    while ((said.match(/HTTP\/1\.1/g) ?? []).length < count) await new Promise((resolve) => setTimeout(resolve, 5));
    return [...said.matchAll(/\{"bytes":\d+\}/g)].map(([json]) => JSON.parse(json) as Record<string, unknown>);
  };
  const pathOf = (session: string) => `${PEER_PATHS.up}?session=${session}&stream=0`;

  it('serves request after request, however the bytes are cut', async () => {
    const { session } = await peer.open();
    const whole = Buffer.concat(
      [70_000, 0, 5].flatMap((bytes) => [Buffer.from(head(pathOf(session), bytes)), Buffer.alloc(bytes, 'x')]),
    );
    for (let at = 0; at < whole.length; at += 9973) {
      client.write(whole.subarray(at, at + 9973));
      await new Promise((resolve) => setImmediate(resolve));
    }
    expect(await answered(3)).toEqual([{ bytes: 70_000 }, { bytes: 0 }, { bytes: 5 }]);
  });

  it('can be used for anything else afterwards, and for an upload again', async () => {
    const { session } = await peer.open();
    client.write(`${head(pathOf(session), 3)}abc`);
    await answered(1);
    client.write('GET /peer/v1/info HTTP/1.1\r\nHost: x\r\n\r\n');
    await answered(2);
    expect(said).toContain('"product":"bent-straw-peer"');
    client.write(`${head(pathOf(session), 4)}abcd`);
    await answered(3);
    expect(said).toContain('{"bytes":4}');
  });

  it('counts the same bytes as the HTTP server does', async () => {
    const { session } = await peer.open();
    client.write(`${head(pathOf(session), 1000)}${'x'.repeat(1000)}`);
    const [fast] = await answered(1);
    // A chunked body goes the plain way.
    const body = new ReadableStream({
      start(controller) {
        controller.enqueue(new Uint8Array(1000));
        controller.close();
      },
    });
    const plain = await fetch(peer.url(PEER_PATHS.up, session, 1), { method: 'POST', body, duplex: 'half' } as never);
    expect(await plain.json()).toEqual(fast);
  });

  it('is told to go on where it waits for that', async () => {
    const { session } = await peer.open();
    client.write(head(pathOf(session), 2, 'Expect: 100-continue\r\n'));
    while (!said.includes('100 Continue')) await new Promise((resolve) => setTimeout(resolve, 5));
    client.write('ab');
    expect(await answered(2)).toEqual([{ bytes: 2 }]);
  });

  it('is refused with a coded problem and closed', async () => {
    client.write(head(pathOf('made-up'), 2));
    await once(client, 'close');
    expect(said).toMatch(/^HTTP\/1\.1 401 /);
    expect(said).toContain('"code":"session-unknown"');
  });

  it('frees its stream when it breaks in the middle', async () => {
    const { session } = await peer.open({ limits: { seconds: 30, bytes: 1e9, streams: 1 } });
    client.write(`${head(pathOf(session), 100)}half`);
    /** Asks until it is answered so: the peer hears of a broken connection when the system tells it. */
    const answers = async (status: number) => {
      const ask = () => fetch(peer.url(PEER_PATHS.up, session, 0), { method: 'POST', body: 'x' });
      while ((await ask()).status !== status);
    };
    await answers(429);
    client.destroy();
    await answers(200);
  });
});
