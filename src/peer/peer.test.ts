import { generateKeyPairSync } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { decodeEcho, encodeProbe, PEER_PATHS, peerInfoSchema, sessionOpenedSchema, type PeerInfo } from '@/wire';
import { checkIdentity, publicKeyText } from '@/wire/peer/ticket';
import type { PeerEvent } from './peer-events';
import { controlMessage, startTestPeer } from './peer-for-tests';
import { ChannelHost } from './udp/channel-host';

type TestPeer = Awaited<ReturnType<typeof startTestPeer>>;

describe('a peer', () => {
  let peer: TestPeer;
  beforeEach(async () => {
    peer = await startTestPeer();
  });
  afterEach(() => peer.close());

  const codeOf = async (response: Response) => [response.status, ((await response.json()) as { code: string }).code];

  it('tells everybody what it is', async () => {
    const info = peerInfoSchema.parse(await (await fetch(`${peer.origin}${PEER_PATHS.info}`)).json());
    expect(info).toMatchObject({ name: 'test peer', can: { download: true, upload: true, probe: true, udp: false } });
  });

  it('tells its version and its load to those who have a ticket, and to no stranger', async () => {
    const ask = async (query: string) =>
      peerInfoSchema.parse(await (await fetch(`${peer.origin}${PEER_PATHS.info}${query}`)).json());
    const ticket = peer.ticket();
    for (const query of ['', '?ticket=nonsense', `?ticket=${ticket}x`]) {
      const { version, load, congestionControl } = await ask(query);
      expect([version, load, congestionControl]).toEqual([undefined, undefined, undefined]);
    }
    expect(await ask(`?ticket=${ticket}`)).toMatchObject({ version: '0.0.0', load: { activeSessions: 0 } });
    // To look costs the ticket nothing.
    expect((await peer.postTicket(ticket)).status).toBe(201);
  });

  it('tells whoever writes it down of sessions and refused tickets', async () => {
    const events: PeerEvent[] = [];
    const told = await startTestPeer({ onEvent: (event) => events.push(event) });
    await told.postTicket('nonsense');
    const { session } = await told.open({ runId: 'run-7' });
    const control = await told.socket(PEER_PATHS.control, session);
    await (await fetch(`${told.url(PEER_PATHS.down, session, 0)}&bytes=1000`)).arrayBuffer();
    control.close();
    while (events.length < 3) await new Promise((resolve) => setImmediate(resolve));
    expect(events).toEqual([
      expect.objectContaining({ kind: 'ticket-refused', code: 'ticket-malformed' }),
      expect.objectContaining({ kind: 'session-opened', run: 'run-7' }),
      expect.objectContaining({ kind: 'session-ended', run: 'run-7', downBytes: 1000, upBytes: 0 }),
    ]);
    expect(JSON.stringify(events)).not.toContain(session);
    told.close();
  });

  it('signs the challenge of whoever asks who it is, and shows nothing to whoever does not', async () => {
    const { privateKey, publicKey } = generateKeyPairSync('ed25519');
    const known = await startTestPeer({ identity: privateKey });
    const ask = async (query: string) =>
      peerInfoSchema.parse(await (await fetch(`${known.origin}${PEER_PATHS.info}${query}`)).json()).identity;
    expect(checkIdentity((await ask('?challenge=abc'))!, 'abc')).toBe(publicKeyText(publicKey));
    expect(await ask('')).toBeUndefined();
    expect(await ask(`?challenge=${'x'.repeat(65)}`)).toBeUndefined();
    known.close();
  });

  it('opens a session for a good ticket and says what it saw of the client', async () => {
    const response = await peer.postTicket(peer.ticket());
    expect(response.status).toBe(201);
    const opened = sessionOpenedSchema.parse(await response.json());
    expect(opened).toMatchObject({ sameMachine: true, ipVersion: 4, limits: { streams: 2 } });
  });

  it('refuses a missing, wrong, expired or used ticket with 401 and its code', async () => {
    expect(await codeOf(await peer.postTicket(null))).toEqual([401, 'ticket-missing']);
    expect(await codeOf(await peer.postTicket('nonsense'))).toEqual([401, 'ticket-malformed']);
    const [body, signature] = peer.ticket().split('.');
    expect(await codeOf(await peer.postTicket(`${body}x.${signature}`))).toEqual([401, 'ticket-forged']);
    const used = peer.ticket();
    expect((await peer.postTicket(used)).status).toBe(201);
    expect(await codeOf(await peer.postTicket(used))).toEqual([401, 'ticket-used']);
    const late = peer.ticket();
    peer.advanceMs(61_000);
    expect(await codeOf(await peer.postTicket(late))).toEqual([401, 'ticket-expired']);
  });

  it('measures nothing for somebody without a session', async () => {
    expect(await codeOf(await fetch(`${peer.origin}${PEER_PATHS.down}?stream=0`))).toEqual([401, 'ticket-missing']);
    expect(await codeOf(await fetch(peer.url(PEER_PATHS.down, 'made-up', 0)))).toEqual([401, 'session-unknown']);
    const upload = await fetch(peer.url(PEER_PATHS.up, 'made-up', 0), { method: 'POST', body: 'x'.repeat(1000) });
    expect(await codeOf(upload)).toEqual([401, 'session-unknown']);
    const refused = await peer.refusal(`${PEER_PATHS.probe}?session=made-up`);
    expect(refused.status).toBe(401);
    expect(JSON.parse(refused.body)).toMatchObject({ code: 'session-unknown' });
  });

  it('sends until the client has had enough', async () => {
    const { session } = await peer.open();
    const response = await fetch(peer.url(PEER_PATHS.down, session, 0));
    let bytes = 0;
    for await (const part of response.body as unknown as AsyncIterable<Uint8Array>) {
      bytes += part.byteLength;
      if (bytes > 20e6) break;
    }
    expect(bytes).toBeGreaterThan(20e6);
  });

  it('counts an upload where it arrives and pushes the counters with its clock', async () => {
    const { session } = await peer.open();
    const control = await peer.socket(PEER_PATHS.control, session);
    const counted = controlMessage(
      control,
      (message) => message.kind === 'upload-counters' && message.bytes[1] === 3e6,
    );
    const response = await fetch(peer.url(PEER_PATHS.up, session, 1), { method: 'POST', body: Buffer.alloc(3e6) });
    expect(await response.json()).toEqual({ bytes: 3e6 });
    expect(await counted).toMatchObject({ kind: 'upload-counters', bytes: [0, 3e6], atMs: expect.any(Number) });
    control.close();
  });

  it('refuses an upload that is announced larger than its limit, before reading it', async () => {
    const { session } = await peer.open({ limits: { seconds: 30, bytes: 1000, streams: 2 } });
    const upload = await fetch(peer.url(PEER_PATHS.up, session, 0), { method: 'POST', body: Buffer.alloc(1001) });
    expect(await codeOf(upload)).toEqual([413, 'limit-bytes']);
  });

  it('cuts an upload that goes beyond its limit without having announced it, and tells the client', async () => {
    const { session } = await peer.open({ limits: { seconds: 30, bytes: 100_000, streams: 2 } });
    const control = await peer.socket(PEER_PATHS.control, session);
    const told = controlMessage(control, (message) => message.kind === 'limit-reached');
    const port = Number(new URL(peer.origin).port);
    const client = connect(port, '127.0.0.1');
    const closed = new Promise((resolve) => client.once('close', resolve));
    client.on('error', () => undefined);
    client.write(
      `POST ${PEER_PATHS.up}?session=${session}&stream=0 HTTP/1.1\r\nHost: x\r\nTransfer-Encoding: chunked\r\n\r\n`,
    );
    const piece = `${(50_000).toString(16)}\r\n${'x'.repeat(50_000)}\r\n`;
    for (let sent = 0; sent < 4; sent += 1) client.write(piece);
    expect(await told).toMatchObject({ code: 'limit-bytes' });
    await closed;
    control.close();
  });

  it('ends a download at its byte limit', async () => {
    const { session } = await peer.open({ limits: { seconds: 30, bytes: 1_500_000, streams: 2 } });
    const response = await fetch(peer.url(PEER_PATHS.down, session, 0));
    let bytes = 0;
    await (async () => {
      for await (const part of response.body as unknown as AsyncIterable<Uint8Array>) bytes += part.byteLength;
    })().catch(() => undefined);
    expect(bytes).toBeLessThanOrEqual(1_500_000);
  });

  it('keeps to the directions and the number of streams of the ticket', async () => {
    const downOnly = await peer.open({ directions: ['down'] });
    const upload = await fetch(peer.url(PEER_PATHS.up, downOnly.session, 0), { method: 'POST', body: 'x' });
    expect(await codeOf(upload)).toEqual([403, 'direction-not-allowed']);
    const { session } = await peer.open({ limits: { seconds: 30, bytes: 1e12, streams: 1 } });
    const first = await fetch(peer.url(PEER_PATHS.down, session, 0));
    expect(await codeOf(await fetch(peer.url(PEER_PATHS.down, session, 1)))).toEqual([429, 'limit-streams']);
    await first.body?.cancel();
    expect(await codeOf(await fetch(peer.url(PEER_PATHS.down, session, 'many')))).toEqual([400, 'stream-malformed']);
  });

  it('echoes probes with its clock and closes on anything else', async () => {
    const { session } = await peer.open();
    const probe = await peer.socket(PEER_PATHS.probe, session);
    probe.send(encodeProbe(77));
    const [echo] = (await once(probe, 'message')) as [Buffer];
    expect(decodeEcho(new Uint8Array(echo).buffer)).toMatchObject({ sequence: 77 });
    probe.send('hello');
    expect(await once(probe, 'close')).toMatchObject([1008, expect.anything()]);
  });

  it('ends everything of a session when its client vanishes', async () => {
    const { session } = await peer.open();
    const control = await peer.socket(PEER_PATHS.control, session);
    const probe = await peer.socket(PEER_PATHS.probe, session);
    const download = await fetch(peer.url(PEER_PATHS.down, session, 0));
    const probeClosed = once(probe, 'close');
    control.terminate();
    await probeClosed;
    await expect(
      (async () => {
        for await (const part of download.body as unknown as AsyncIterable<Uint8Array>) void part;
      })(),
    ).rejects.toThrow();
    expect(await codeOf(await fetch(peer.url(PEER_PATHS.down, session, 0)))).toEqual([401, 'session-unknown']);
  });

  it('tells a client that measures how busy it is and who else measures', async () => {
    const [mine, other] = [await peer.open(), await peer.open()];
    const control = await peer.socket(PEER_PATHS.control, mine.session);
    await peer.socket(PEER_PATHS.control, other.session);
    const pulling = await fetch(peer.url(PEER_PATHS.down, other.session, 0));
    void (async () => {
      for await (const part of pulling.body as unknown as AsyncIterable<Uint8Array>) void part;
    })().catch(() => undefined);
    const load = await controlMessage(control, (message) => message.kind === 'load');
    expect(load).toMatchObject({ sample: { otherSessions: 1, loopLateMs: expect.any(Number) } });
  });

  it('answers how many UDP packets came, and closes on any other question', async () => {
    const { session } = await peer.open();
    const control = await peer.socket(PEER_PATHS.control, session);
    const counted = controlMessage(control, (message) => message.kind === 'udp-counts');
    control.send('{"kind":"udp-counts"}');
    expect(await counted).toEqual({ kind: 'udp-counts', received: 0 });
    control.send('{"kind":"give me all"}');
    expect(await once(control, 'close')).toMatchObject([1008, expect.anything()]);
  });

  it('says that UDP and data channels are not enabled until they are', async () => {
    const { session } = await peer.open();
    const post = (path: string) => fetch(peer.url(path, session), { method: 'POST', body: 'v=0' });
    expect(await codeOf(await post(PEER_PATHS.udp))).toEqual([409, 'udp-off']);
    expect(await codeOf(await post(PEER_PATHS.channel))).toEqual([409, 'channel-off']);
  });

  it('takes a few offers of a data channel, says what is wrong with one, and then no more of them', async () => {
    const channels = await ChannelHost.start({ ports: [48_200, 48_210] });
    const own = await startTestPeer({ channels });
    try {
      const { session } = await own.open();
      const offer = (body: string) => fetch(own.url(PEER_PATHS.channel, session), { method: 'POST', body });
      expect(await codeOf(await offer('no offer at all'))).toEqual([400, 'offer-malformed']);
      expect(await codeOf(await offer('v=0\r\n'.repeat(4000)))).toEqual([400, 'offer-malformed']);
      expect(await codeOf(await offer(''))).toEqual([400, 'offer-malformed']);
      // Each makes the peer work, and may make it send: three are a session's share, whatever they were.
      expect(await codeOf(await offer('v=0'))).toEqual([429, 'limit-offers']);
      // What nobody took up holds no port.
      expect(channels.hasRoom).toBe(true);
    } finally {
      own.close();
      channels.close();
    }
  });

  it('knocks at ports of whoever asks, one at a time, four in all, and of nobody without a session', async () => {
    const { session, address, info } = sessionOpenedSchema.parse(await peer.open());
    expect([address, info.can.knock]).toEqual(['127.0.0.1', true]);
    const knocked: number[] = [];
    const listening = createServer().on('connection', (socket) => knocked.push(socket.remotePort!));
    await once(listening.listen(0, '127.0.0.1'), 'listening');
    const { port } = listening.address() as AddressInfo;
    const knock = (at: number | string, of = session) =>
      fetch(`${peer.url(PEER_PATHS.knock, of)}&port=${at}`, { method: 'POST' });
    const state = async (at: number) => ((await (await knock(at)).json()) as { state: string }).state;
    try {
      expect(await codeOf(await knock(port, 'nobody'))).toEqual([401, 'session-unknown']);
      for (const odd of ['', '0', '65536', '8.5', 'ssh', '-1'])
        expect(await codeOf(await knock(odd))).toEqual([400, 'port-malformed']);
      expect(knocked).toEqual([]);
      expect(await state(port)).toBe('open');
      expect(knocked).toHaveLength(1);
      // Two at once: the second waits for nobody.
      const both = await Promise.all([knock(port), knock(port)]);
      expect(both.map(({ status }) => status).sort((a, b) => a - b)).toEqual([200, 429]);
      listening.close();
      listening.closeAllConnections();
      await once(listening, 'close');
      expect(await state(port)).toBe('refused');
      expect(await state(port)).toBe('refused');
      expect(await codeOf(await knock(port))).toEqual([429, 'limit-knocks']);
    } finally {
      listening.close();
    }
  });

  it('lets a page watch beside those that measure: its session lives with its probes, and counts as nobody', async () => {
    const ended: string[] = [];
    const own = await startTestPeer({ onEvent: (event) => event.kind === 'session-ended' && ended.push(event.run) });
    const watch = { deviceId: 'phone', runId: 'lane', watch: true } as const;
    const watching = await own.open(watch);
    const probe = await own.socket(PEER_PATHS.probe, watching.session);
    // A run of the same device goes on beside it, and so does another lane.
    const [run] = [await own.open({ deviceId: 'phone' }), await own.open({ ...watch, runId: 'another lane' })];
    const control = await own.socket(PEER_PATHS.control, run.session);
    probe.send(encodeProbe(5));
    expect((await once(probe, 'message'))[0]).toHaveLength(12);
    const told = (await (await fetch(`${own.origin}${PEER_PATHS.info}?ticket=${own.ticket()}`)).json()) as PeerInfo;
    expect(told.load!.activeSessions).toBe(1);
    // The same lane once more takes its own place, and nobody else's.
    const closed = once(probe, 'close');
    const anew = await own.open(watch);
    await closed;
    expect([ended, control.readyState]).toEqual([['lane'], control.OPEN]);
    (await own.socket(PEER_PATHS.probe, anew.session)).terminate();
    while (ended.length < 2) await new Promise((resolve) => setTimeout(resolve, 10));
    expect(ended).toEqual(['lane', 'lane']);
    own.close();
  });

  it('takes no more runs at once than it may', async () => {
    for (let run = 0; run < 4; run += 1) await peer.open();
    const fifth = await peer.postTicket(peer.ticket());
    expect(await codeOf(fifth)).toEqual([503, 'peer-busy']);
  });

  it('knows no other paths or methods, and no console', async () => {
    expect(await codeOf(await fetch(`${peer.origin}/peer/v1/else`))).toEqual([404, 'path-unknown']);
    expect(await codeOf(await fetch(`${peer.origin}${PEER_PATHS.sessions}`))).toEqual([405, 'method-not-allowed']);
    expect(await codeOf(await fetch(`${peer.origin}/anything`))).toEqual([404, 'no-console']);
  });
});

describe('the front door with a console behind it', () => {
  it('hands on what is not measured, with the true address of the client', async () => {
    const behind = createServer((request, response) => {
      response.end(
        JSON.stringify({ url: request.url, forwarded: request.headers['x-forwarded-for'], host: request.headers.host }),
      );
    }).listen(0, '127.0.0.1');
    await once(behind, 'listening');
    const peer = await startTestPeer({ consolePort: (behind.address() as AddressInfo).port });
    const response = await fetch(`${peer.origin}/runs/1?x=2`, { headers: { 'X-Forwarded-For': '203.0.113.9' } });
    const seen = (await response.json()) as { url: string; forwarded: string; host: string };
    expect(seen).toEqual({ url: '/runs/1?x=2', forwarded: '127.0.0.1', host: new URL(peer.origin).host });
    peer.close();
    behind.close();
  });

  it('says so, to people and to programs, when the console is away', async () => {
    const gone = createServer().listen(0, '127.0.0.1');
    await once(gone, 'listening');
    const { port } = gone.address() as AddressInfo;
    gone.close();
    await once(gone, 'close');
    const peer = await startTestPeer({ consolePort: port });
    const forPeople = await fetch(`${peer.origin}/`, { headers: { Accept: 'text/html' } });
    expect(forPeople.status).toBe(502);
    expect(await forPeople.text()).toContain('The console is not answering');
    const forPrograms = await fetch(`${peer.origin}/api/v1/runs`, { method: 'POST' });
    expect(await forPrograms.json()).toMatchObject({ status: 502, code: 'console-unreachable' });
    peer.close();
  });
});
