import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { WebSocketServer, type WebSocket } from 'ws';
import type { LookFound } from '@/core';
import { memoryOutbox, type Outbox } from '@/session';
import type { AgentHello, HandInRequest, StandingOrder } from '@/wire';
import { LookFault, type TakeLook } from './look';
import { standBy, type StandByNews } from './stand-by';

const HELLO: AgentHello = {
  ...{ version: '0.1.0', protocol: 1, clockMs: 0, outbox: 0, neighbours: [], can: [] },
  facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
};
const LEFT: HandInRequest = {
  runKey: 'key',
  handIn: { outcome: 'unfinished', reason: 'cancelled', samples: null, facts: null },
};
const FOUND: LookFound = { what: 'programs', seconds: 10, programs: [] };
const LOOK: StandingOrder = { kind: 'look', lookId: 'l1', asked: { what: 'programs', seconds: 10 } };
const ASKED: StandingOrder = { kind: 'asked', turnId: 't1', by: 'Ines', reach: 'local', profile: 'quick', inMs: 0 };

describe('an agent that stands by', () => {
  let server: Server;
  let sockets: WebSocketServer;
  let opened: WebSocket[];
  let posted: { readonly path: string; readonly body: Record<string, unknown> }[];
  let news: StandByNews[];
  let answer: (path: string) => Response;
  let look: TakeLook;
  beforeEach(async () => {
    [opened, posted, news] = [[], [], []];
    look = () => Promise.resolve(FOUND);
    answer = () => Response.json({ code: 'peer-missing', detail: 'There is no peer that far.' }, { status: 409 });
    sockets = new WebSocketServer({ noServer: true });
    sockets.on('connection', (socket) => opened.push(socket));
    server = createServer().on('upgrade', (request, socket, head) =>
      sockets.handleUpgrade(request, socket, head, (of) => sockets.emit('connection', of, request)),
    );
    await once(server.listen(0, '127.0.0.1'), 'listening');
  });
  afterEach(() => {
    for (const socket of sockets.clients) socket.terminate();
    server.close();
  });
  const until = async (holds: () => boolean) => {
    while (!holds()) await new Promise((resolve) => setImmediate(resolve));
  };
  const start = (outbox: Outbox = memoryOutbox(), noticed: string[] = []) => {
    const stop = new AbortController();
    const ended = standBy({
      ...{ origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, outbox },
      ...{ deviceId: () => 'd1', cookie: () => 'cookie', agentVersion: '0.1.0', signal: stop.signal, everyMs: 50 },
      hello: (left) => Promise.resolve({ ...HELLO, outbox: left }),
      link: () => Promise.resolve({ medium: 'unknown' }),
      look: (asked, signal, help) => look(asked, signal, help),
      noticed: () => Promise.resolve(noticed),
      post: (path, body) => {
        posted.push({ path, body: body as Record<string, unknown> });
        return Promise.resolve(answer(path));
      },
      onNews: (each) => news.push(each),
    });
    return { ended, end: () => stop.abort() };
  };
  const kinds = () => news.map(({ kind }) => kind);

  it('takes up the turn that it is asked for, as itself, with what it noticed, and says why nothing came of it', async () => {
    const { ended, end } = start(memoryOutbox(), ['Just before: rsync moves 24.1 Mb/s up.']);
    await until(() => opened.length > 0);
    opened[0]!.send(JSON.stringify(ASKED));
    await until(() => kinds().includes('not-measured'));
    expect(posted[0]).toMatchObject({
      path: '/api/v1/runs',
      body: {
        turnId: 't1',
        deviceId: 'd1',
        deviceName: null,
        spotName: null,
        reach: 'local',
        profile: 'quick',
        code: null,
      },
    });
    expect(posted[0]!.body['noticed']).toEqual(['Just before: rsync moves 24.1 Mb/s up.']);
    expect(news.at(-1)).toEqual({ kind: 'not-measured', why: 'There is no peer that far.' });
    end();
    await ended;
  });

  it('asks for no run whose turn was withdrawn before it began', async () => {
    const { ended, end } = start();
    await until(() => opened.length > 0);
    // One message behind the other: the second is there before the first is acted on.
    opened[0]!.send(JSON.stringify({ kind: 'withdrawn', turnId: 't1' }));
    opened[0]!.send(JSON.stringify(ASKED));
    opened[0]!.send(JSON.stringify({ ...ASKED, turnId: 't2' }));
    await until(() => kinds().filter((kind) => kind === 'asked').length > 0);
    await new Promise((resolve) => setImmediate(resolve));
    expect(posted.filter(({ body }) => body['turnId'] === 't1')).toEqual([]);
    end();
    await ended;
  });

  it('hands in what an earlier time has left, as soon as the console hears it', async () => {
    const outbox = memoryOutbox();
    await outbox.put({ runId: 'r1', request: LEFT });
    answer = (path) =>
      Response.json({ runId: path.split('/')[4], status: 'unfinished', figures: '', held: '', result: null });
    const { ended, end } = start(outbox);
    await until(() => kinds().includes('handed-in'));
    expect(posted[0]!.path).toBe('/api/v1/runs/r1/hand-in');
    expect(await outbox.all()).toEqual([]);
    end();
    await ended;
  });

  it('keeps what the console does not take just now, and tries again while it stands by', async () => {
    const outbox = memoryOutbox();
    await outbox.put({ runId: 'r1', request: LEFT });
    let away = 3;
    answer = (path) => {
      away -= 1;
      if (away >= 0) return Response.json({ code: 'store-full', detail: 'full' }, { status: 507 });
      return Response.json({ runId: path.split('/')[4], status: 'unfinished', figures: '', held: '', result: null });
    };
    const { ended, end } = start(outbox);
    await until(() => kinds().includes('handed-in'));
    expect(posted).toHaveLength(4);
    end();
    await ended;
  });

  it.each([
    ['removed', 'The technician retired this agent'],
    ['elsewhere', 'Another machine stands by as this one'],
    ['other-version', 'do not understand each other'],
  ] as const)('that is dismissed (%s) ends, and says what to do', async (reason, words) => {
    const { ended } = start();
    await until(() => opened.length > 0);
    opened[0]!.send(JSON.stringify({ kind: 'dismissed', reason } satisfies StandingOrder));
    opened[0]!.close();
    await expect(ended).rejects.toMatchObject({ code: 'sent-away', message: expect.stringContaining(words) });
  });

  it('looks at what it is asked about, and posts what it found until the console has taken it', async () => {
    const answers = [new Response('gone', { status: 502 }), new Response(null, { status: 204 })];
    answer = () => answers.shift()!;
    const { ended, end } = start();
    await until(() => opened.length > 0);
    opened[0]!.send(JSON.stringify(LOOK));
    await until(() => kinds().includes('looked'));
    expect(posted).toEqual([0, 1].map(() => ({ path: '/api/v1/looks/l1/outcome', body: { ok: true, found: FOUND } })));
    end();
    await ended;
  });

  it('what the console does not take ends the look, with why', async () => {
    const answers = [
      Response.json({ code: 'request-too-large', detail: 'It is larger than 1 MB.' }, { status: 413 }),
      new Response(null, { status: 204 }),
    ];
    answer = () => answers.shift()!;
    const { ended, end } = start();
    await until(() => opened.length > 0);
    opened[0]!.send(JSON.stringify(LOOK));
    await until(() => kinds().includes('looked'));
    expect(posted[1]!.body).toMatchObject({ ok: false, code: 'look-failed' });
    expect(posted[1]!.body['sentence']).toContain('It is larger than 1 MB.');
    end();
    await ended;
  });

  it('looks at one thing at a time, and stops when it is not wanted any more', async () => {
    answer = () => new Response(null, { status: 204 });
    look = (_, signal) =>
      new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(new LookFault('look-stopped'))));
    const { ended, end } = start();
    await until(() => opened.length > 0);
    opened[0]!.send(JSON.stringify(LOOK));
    opened[0]!.send(JSON.stringify({ ...LOOK, lookId: 'l2' }));
    await until(() => posted.length === 1);
    expect(posted[0]).toMatchObject({ path: '/api/v1/looks/l2/outcome', body: { ok: false, code: 'look-busy' } });
    opened[0]!.send(JSON.stringify({ kind: 'look-withdrawn', lookId: 'l1' }));
    await until(() => posted.length === 2);
    expect(posted[1]).toMatchObject({ path: '/api/v1/looks/l1/outcome', body: { ok: false, code: 'look-stopped' } });
    end();
    await ended;
  });
});
