import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { Agent, request, type RequestOptions } from 'node:https';
import type { IncomingMessage } from 'node:http';
import { generate } from 'selfsigned';
import { startTestPeer, type TestPeerOptions } from '../peer-for-tests';
import type { PeerEvent } from '../peer-events';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;

describe('the front door', () => {
  let peer: TestPeer;
  let console: Server;
  let seen: Record<string, unknown>[];
  let events: PeerEvent[];
  const start = async (options: TestPeerOptions = {}) => {
    const { port } = console.address() as AddressInfo;
    peer = await startTestPeer({ consolePort: port, onEvent: (event) => events.push(event), ...options });
  };
  beforeEach(async () => {
    [seen, events] = [[], []];
    console = createServer((asked, response) => {
      seen.push({ url: asked.url, ...asked.headers });
      response.statusCode = asked.url === '/fails' ? 500 : 200;
      response.end('from the console');
    }).listen(0, '127.0.0.1');
    await once(console, 'listening');
  });
  afterEach(() => {
    peer.close();
    console.closeAllConnections();
    console.close();
  });

  /** A head as it goes over the wire, and the whole answer. */
  async function raw(head: string): Promise<string> {
    const socket = connect({ port: Number(new URL(peer.origin).port), host: '127.0.0.1' });
    let said = '';
    socket.on('data', (part: Buffer) => (said += part.toString()));
    socket.write(`${head}\r\nHost: localhost\r\nConnection: close\r\n\r\n`);
    await once(socket, 'close');
    return said;
  }
  const requests = () => events.flatMap((event) => (event.kind === 'request' ? [event.request] : []));

  it('names each request for the console, to it, to whoever asked and to the log, whatever the asker claims', async () => {
    await start();
    const response = await fetch(`${peer.origin}/ledger?text=secret`, { headers: { 'X-Request-Id': 'forged' } });
    const id = response.headers.get('x-request-id')!;
    expect(id).toMatch(/^[\w-]{12}$/);
    await response.text();
    expect(seen[0]).toMatchObject({ 'x-request-id': id });
    while (requests().length === 0) await new Promise((resolve) => setImmediate(resolve));
    expect(requests()).toEqual([
      expect.objectContaining({ id, method: 'GET', path: '/ledger', status: 200, address: expect.any(String) }),
    ]);
  });

  it('leaves what lets somebody in out of what it tells', async () => {
    await start();
    await (await fetch(`${peer.origin}/passphrase/abc.def`)).text();
    while (requests().length === 0) await new Promise((resolve) => setImmediate(resolve));
    expect(requests()[0]!.path).toBe('/passphrase/…');
  });

  it.each(['/j/%', '/runs/%E0%A4', '/api/v1/%', '/%zz'])(
    'refuses %s itself, with a code for scripts and a page for people',
    async (path) => {
      await start();
      const coded = await raw(`GET ${path} HTTP/1.1`);
      expect(coded).toMatch(/^HTTP\/1\.1 400 /);
      expect(coded).toContain('"code":"path-malformed"');
      const page = await raw(`GET ${path} HTTP/1.1\r\nAccept: text/html`);
      expect(page).toMatch(/^HTTP\/1\.1 400 [^]*text\/html/);
      expect(page).toContain('Address malformed');
      expect(seen).toEqual([]);
    },
  );

  it.each(['TRACE', 'PROPFIND', 'LINK'])('does not know %s', async (method) => {
    await start();
    const said = await raw(`${method} / HTTP/1.1`);
    expect(said).toMatch(/^HTTP\/1\.1 405 /);
    expect(said).toContain('"code":"method-not-allowed"');
    expect(seen).toEqual([]);
  });

  describe('with a certificate of one’s own', () => {
    let agent: Agent;
    let tls: { readonly cert: string; readonly key: string };
    beforeAll(async () => {
      const made = await generate([{ name: 'commonName', value: 'test' }], { keyType: 'ec', algorithm: 'sha256' });
      tls = { cert: made.cert, key: made.private };
      agent = new Agent({ rejectUnauthorized: false });
    });
    afterAll(() => agent.destroy());
    async function byTls(path: string, options: RequestOptions = {}): Promise<IncomingMessage> {
      const asked = request(`${peer.origin.replace('http:', 'https:')}${path}`, { agent, ...options });
      asked.end();
      const [response] = (await once(asked, 'response')) as [IncomingMessage];
      response.resume();
      return response;
    }
    it('leads what comes in plain to https, and tells browsers to stay there', async () => {
      await start({ tls, toHttps: true, hosts: ['bench.example'] });
      const socket = connect({ port: Number(new URL(peer.origin).port), host: '127.0.0.1' });
      let said = '';
      socket.on('data', (part: Buffer) => (said += part.toString()));
      socket.write('GET /ledger?page=2 HTTP/1.1\r\nHost: bench.example:4870\r\nConnection: close\r\n\r\n');
      await once(socket, 'close');
      expect(said).toMatch(/^HTTP\/1\.1 308 /);
      expect(said).toContain('Location: https://bench.example:4870/ledger?page=2\r\n');
      expect(seen).toEqual([]);
      const secured = await byTls('/ledger');
      expect(secured.headers['strict-transport-security']).toBe('max-age=15552000');
      expect(seen).toHaveLength(1);
    });

    it('answers this machine in plain, for whose names no certificate stands, and measures in plain too', async () => {
      await start({ tls, toHttps: true });
      expect(await raw('GET /ledger HTTP/1.1')).toMatch(/^HTTP\/1\.1 200 /);
      expect((await fetch(`${peer.origin}/peer/v1/info`)).status).toBe(200);
    });

    it('leads nobody anywhere with one that was made here', async () => {
      await start({ tls });
      expect((await byTls('/')).headers['strict-transport-security']).toBeUndefined();
      expect((await fetch(`${peer.origin}/`)).status).toBe(200);
    });
  });
});
