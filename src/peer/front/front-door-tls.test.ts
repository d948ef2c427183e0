import { once } from 'node:events';
import { Agent, request, type RequestOptions } from 'node:https';
import type { IncomingMessage } from 'node:http';
import { connect as connectPlain } from 'node:net';
import { connect } from 'node:tls';
import { generate } from 'selfsigned';
import { WebSocket } from 'ws';
import { decodeEcho, encodeProbe, PEER_PATHS } from '@/wire';
import { controlMessage, startTestPeer } from '../peer-for-tests';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;

describe('HTTPS on the same port', () => {
  let peer: TestPeer;
  let agent: Agent;
  beforeEach(async () => {
    const made = await generate([{ name: 'commonName', value: 'test' }], { keyType: 'ec', algorithm: 'sha256' });
    peer = await startTestPeer({ tls: { cert: made.cert, key: made.private } });
    agent = new Agent({ ca: made.cert, rejectUnauthorized: false });
  });
  afterEach(() => {
    agent.destroy();
    peer.close();
  });

  const secured = () => peer.origin.replace('http:', 'https:');
  async function ask(path: string, options: RequestOptions = {}, body?: Buffer) {
    const asked = request(`${secured()}${path}`, { agent, ...options });
    asked.end(body);
    const [response] = (await once(asked, 'response')) as [IncomingMessage];
    let text = '';
    for await (const part of response) text += String(part);
    return { status: response.statusCode, json: JSON.parse(text) as Record<string, unknown> };
  }

  it('answers over TLS and in plain, each to whoever speaks it', async () => {
    expect(await ask(PEER_PATHS.info)).toMatchObject({ status: 200, json: { name: 'test peer' } });
    expect((await fetch(`${peer.origin}${PEER_PATHS.info}`)).status).toBe(200);
    expect(await ask(PEER_PATHS.info)).toMatchObject({ status: 200 });
  });

  it('echoes probes and counts uploads over TLS as in plain', async () => {
    const { session } = await peer.open();
    const base = secured().replace('https', 'wss');
    const open = async (path: string) => {
      const socket = new WebSocket(`${base}${path}?session=${session}`, { rejectUnauthorized: false });
      await once(socket, 'open');
      return socket;
    };
    const control = await open(PEER_PATHS.control);
    const probe = await open(PEER_PATHS.probe);
    probe.binaryType = 'arraybuffer';
    probe.send(encodeProbe(7));
    const [echo] = (await once(probe, 'message')) as [ArrayBuffer];
    expect(decodeEcho(echo)).toMatchObject({ sequence: 7 });

    const counted = controlMessage(
      control,
      (message) => message.kind === 'upload-counters' && message.bytes.some((bytes) => bytes >= 300_000),
    );
    const body = Buffer.alloc(300_000, 7);
    const taken = await ask(`${PEER_PATHS.up}?session=${session}&stream=0`, { method: 'POST' }, body);
    expect(taken).toMatchObject({ status: 200, json: { bytes: 300_000 } });
    await expect(counted).resolves.toMatchObject({ kind: 'upload-counters' });
    for (const socket of [control, probe]) socket.close();
  });

  it('survives nonsense that begins like TLS', async () => {
    const socket = connectPlain(Number(new URL(peer.origin).port), '127.0.0.1');
    socket.on('error', () => undefined);
    socket.resume();
    socket.write(Buffer.from([22, 3, 1, 0, 4, 1, 0, 0, 0]));
    await once(socket, 'close');
    expect((await fetch(`${peer.origin}${PEER_PATHS.info}`)).status).toBe(200);
  });
});

it('a peer without a certificate closes what begins like TLS', async () => {
  const peer = await startTestPeer();
  const socket = connect({ port: Number(new URL(peer.origin).port), host: '127.0.0.1', rejectUnauthorized: false });
  const [error] = (await once(socket, 'error')) as [Error];
  expect(error.message).toMatch(/disconnected|ECONNRESET|socket hang up/);
  peer.close();
});
