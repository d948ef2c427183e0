import { once } from 'node:events';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { askForRun, sleep } from '@/session';
import type { HandInRequest, StartRun } from '@/wire';
import { AgentFault } from './agent-faults';
import { postTo, readConsoleAddress } from './console-client';
import { diskOutbox } from './disk-outbox';
import { KnownDevices } from './known-devices';

const GRANT = {
  status: 'granted',
  ...{ runId: 'run', runKey: 'key', ticket: 'ticket', peer: { name: 'peer', baseUrl: 'http://192.0.2.1:4870' } },
  ...{ profile: 'standard', pacedBps: null, leastDirectionMs: 0, web: null, deviceId: 'device-1', deviceName: 'box' },
  yardstick: { downBps: null, upBps: null },
};
const ORDER: StartRun = {
  ...{ code: 'KMT4QX', deviceId: null, deviceName: 'box', deviceKind: null, spotName: '', link: { medium: 'unknown' } },
  ...{
    reach: 'internet',
    profile: 'standard',
    told: [],
    noticed: [],
    turnId: null,
    pacedMbps: null,
    holdMs: 0,
    loadsWeb: false,
  },
};
const REQUEST: HandInRequest = {
  runKey: 'key',
  handIn: { outcome: 'unfinished', reason: 'cancelled', samples: null, facts: null },
};

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'bent-straw-agent-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

describe('the agent and its console', () => {
  let server: Server;
  let origin: string;
  let asked: { cookie: string | undefined; body: StartRun }[];
  let answer: () => [number, unknown];

  const bodyOf = async (request: IncomingMessage) => {
    let text = '';
    for await (const part of request) text += String(part);
    return JSON.parse(text) as StartRun;
  };
  beforeEach(async () => {
    asked = [];
    answer = () => [201, GRANT];
    server = createServer((request, response) => {
      void bodyOf(request).then((body) => {
        asked.push({ cookie: request.headers.cookie, body });
        const [status, document] = answer();
        response.writeHead(status, { 'Set-Cookie': 'bent-straw-device=device-1.proof; Path=/; HttpOnly' });
        response.end(JSON.stringify(document));
      });
    }).listen(0, '127.0.0.1');
    await once(server, 'listening');
    origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterEach(() => {
    server.closeAllConnections();
    server.close();
  });
  const devices = () => new KnownDevices(join(folder, 'state', 'devices.json'));
  const ask = (known: KnownDevices) =>
    askForRun(
      { ...ORDER, deviceId: known.of(origin, 'box')?.id ?? null },
      { post: postTo(origin, 'box', known), sleep, signal: new AbortController().signal, onWaiting: () => undefined },
    );

  it('is a new device the first time, and proves by its cookie that it is the same one afterwards', async () => {
    expect((await ask(devices())).status).toBe('granted');
    expect((await ask(devices())).status).toBe('granted');
    expect(asked.map(({ body, cookie }) => [body.deviceId, cookie])).toEqual([
      [null, undefined],
      ['device-1', 'bent-straw-device=device-1.proof'],
    ]);
    expect(statSync(join(folder, 'state', 'devices.json')).mode & 0o777).toBe(0o600);
  });

  it('passes on why the console refused, and tells nonsense and silence apart from that', async () => {
    answer = () => [409, { code: 'name-taken', detail: 'There is another device named box.' }];
    expect(await ask(devices())).toMatchObject({ status: 'refused', refusal: { code: 'name-taken' } });
    answer = () => [201, { hello: 'world' }];
    expect((await ask(devices())).status).toBe('odd');
    server.closeAllConnections();
    server.close();
    expect((await ask(devices())).status).toBe('away');
  });

  it('reads the code out of the address as the board shows it, and refuses what is no address', () => {
    expect(readConsoleAddress('http://192.0.2.20:4870/j/KMT4QX')).toEqual({
      ...{ origin: 'http://192.0.2.20:4870', code: 'KMT4QX' },
    });
    for (const wrong of ['192.0.2.20', 'ftp://192.0.2.20/j/X', ''])
      expect(() => readConsoleAddress(wrong)).toThrow(AgentFault);
  });

  it('starts anew where its memory cannot be read, and knows the file of the version before', () => {
    const file = join(folder, 'broken.json');
    writeFileSync(file, '{ not json');
    const known = new KnownDevices(file);
    expect(known.of(origin, 'box')).toBeNull();
    known.remember(origin, 'box', { id: 'device-2', cookie: 'c' });
    expect(known.of(origin, 'box')).toEqual({ id: 'device-2', cookie: 'c' });
    writeFileSync(file, JSON.stringify({ [`${origin} box`]: 'device-3' }));
    expect(known.of(origin, 'box')).toEqual({ id: 'device-3', cookie: null });
  });
});

describe('the outbox on disk', () => {
  const open = (origin = 'http://192.0.2.20:4870') => diskOutbox(join(folder, 'outbox'), origin);

  it('holds a result over the end of the process, for its own console, until it is removed', async () => {
    await open().put({ runId: 'run-1', request: REQUEST });
    expect(await open().all()).toEqual([{ runId: 'run-1', request: REQUEST }]);
    expect(await open('http://192.0.2.21:4870').all()).toEqual([]);
    await open().remove('run-1');
    await open().remove('run-1');
    expect(await open().all()).toEqual([]);
  });

  it('never takes half a file for a result: what was being written is not there, what is damaged is laid aside', async () => {
    await open().put({ runId: 'run-1', request: REQUEST });
    const [place] = readdirSync(join(folder, 'outbox'));
    const inside = join(folder, 'outbox', place!);
    writeFileSync(join(inside, 'run-2.json.part'), '{"runKey":"key","han');
    writeFileSync(join(inside, 'run-3.json'), '{"runKey":"key","han');
    expect((await open().all()).map(({ runId }) => runId)).toEqual(['run-1']);
    expect(readFileSync(join(inside, 'run-3.json.damaged'), 'utf8')).toContain('runKey');
  });

  it('is bounded: the oldest go, how many is told, and the newest stays whatever its size', async () => {
    const dropped: number[] = [];
    const limits = {
      mostBytes: 2.5 * JSON.stringify(REQUEST).length,
      onDropped: (many: number) => void dropped.push(many),
    };
    const small = diskOutbox(join(folder, 'outbox'), 'http://192.0.2.20:4870', limits);
    for (const runId of ['run-1', 'run-2', 'run-3']) await small.put({ runId, request: REQUEST });
    expect((await open().all()).map(({ runId }) => runId)).toEqual(['run-2', 'run-3']);
    expect(dropped).toEqual([1]);
    const tiny = diskOutbox(join(folder, 'outbox'), 'http://192.0.2.20:4870', { ...limits, mostBytes: 1 });
    await tiny.put({ runId: 'run-4', request: REQUEST });
    expect((await open().all()).map(({ runId }) => runId)).toEqual(['run-4']);
  });

  it('writes nowhere else, whatever a console calls its runs', async () => {
    await expect(open().put({ runId: '../../elsewhere', request: REQUEST })).rejects.toThrow('not a run');
  });
});
