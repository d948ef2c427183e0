import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StartRun } from '@/wire';
import { AgentFault } from './agent-faults';
import { ConsoleClient } from './console-client';
import { KnownDevices } from './known-devices';

const GRANT = {
  status: 'granted',
  ...{ runId: 'run', runKey: 'key', ticket: 'ticket', peer: { name: 'peer', baseUrl: 'http://192.0.2.1:4870' } },
  ...{ profile: 'standard', pacedBps: null, deviceId: 'device-1', deviceName: 'box' },
  yardstick: { downBps: null, upBps: null },
};
const ORDER: Omit<StartRun, 'code' | 'deviceId'> = {
  deviceName: 'box',
  deviceKind: null,
  spotName: '',
  link: { medium: 'unknown' },
  reach: 'internet',
  profile: 'standard',
  told: [],
  noticed: [],
  turnId: null,
  pacedMbps: null,
};

describe('the agent and its console', () => {
  let folder: string;
  let server: Server;
  let asked: { url: string; body: { deviceId: string | null; code: string | null; turnId: string | null } }[];
  let answer: (asking: (typeof asked)[number]) => [number, unknown];
  let origin: string;

  const bodyOf = async (request: IncomingMessage) => {
    let text = '';
    for await (const part of request) text += String(part);
    return JSON.parse(text) as (typeof asked)[number]['body'];
  };
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-agent-'));
    asked = [];
    answer = () => [201, GRANT];
    server = createServer((request, response) => {
      void bodyOf(request).then((body) => {
        asked.push({ url: request.url!, body });
        const [status, document] = answer(asked.at(-1)!);
        response.writeHead(status).end(JSON.stringify(document));
      });
    }).listen(0, '127.0.0.1');
    await once(server, 'listening');
    origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterEach(() => {
    server.close();
    rmSync(folder, { recursive: true });
  });
  const devices = () => new KnownDevices(join(folder, 'state', 'devices.json'));
  it('waits for its turn, asking again with the turn that it was given', async () => {
    const waiting = { status: 'waiting', turnId: 'turn-1', deviceId: 'device-1', deviceName: 'box', aboutMs: 9000 };
    answer = () => (asked.length < 3 ? [202, { ...waiting, why: 'Press desk is measuring' }] : [201, GRANT]);
    const heard: string[] = [];
    const client = ConsoleClient.fromAddress(`${origin}/j/KMT4QX`);
    const grant = await client.startRun(ORDER, devices(), ({ why }) => heard.push(why));
    expect(grant.runId).toBe('run');
    expect(heard).toEqual(['Press desk is measuring', 'Press desk is measuring']);
    expect(asked.map(({ body }) => [body.deviceId, body.turnId])).toEqual([
      [null, null],
      ['device-1', 'turn-1'],
      ['device-1', 'turn-1'],
    ]);
  });

  const codeOf = async (act: () => Promise<unknown>) => {
    try {
      await act();
      return 'none';
    } catch (error) {
      return error instanceof AgentFault ? error.code : 'other';
    }
  };

  it('reads the code out of the address as the board shows it, and refuses what is no address', () => {
    expect(ConsoleClient.fromAddress('http://192.0.2.20:4870/j/KMT4QX').origin).toBe('http://192.0.2.20:4870');
    for (const wrong of ['192.0.2.20', 'ftp://192.0.2.20/j/X', ''])
      expect(() => ConsoleClient.fromAddress(wrong)).toThrow(AgentFault);
  });

  it('is a new device the first time and the same one afterwards', async () => {
    const client = ConsoleClient.fromAddress(`${origin}/j/KMT4QX`);
    await client.startRun(ORDER, devices());
    await client.startRun(ORDER, devices());
    expect(asked.map(({ body }) => [body.deviceId, body.code])).toEqual([
      [null, 'KMT4QX'],
      ['device-1', 'KMT4QX'],
    ]);
  });

  it('is a new device again when it was removed from the console', async () => {
    const known = devices();
    known.remember(origin, 'box', 'removed');
    answer = ({ body }) => (body.deviceId === null ? [201, GRANT] : [404, { code: 'device-unknown', detail: 'Gone.' }]);
    await ConsoleClient.fromAddress(`${origin}/j/KMT4QX`).startRun(ORDER, known);
    expect(asked.map(({ body }) => body.deviceId)).toEqual(['removed', null]);
    expect(known.idOf(origin, 'box')).toBe('device-1');
  });

  it('passes on why the console refused, and tells nonsense and silence apart from that', async () => {
    const client = ConsoleClient.fromAddress(`${origin}/j/KMT4QX`);
    answer = () => [409, { code: 'name-taken', detail: 'There is another device named box.' }];
    await expect(client.startRun(ORDER, devices())).rejects.toThrow('There is another device named box.');
    answer = () => [201, { hello: 'world' }];
    expect(await codeOf(() => client.startRun(ORDER, devices()))).toBe('console-odd');
    server.closeAllConnections();
    server.close();
    expect(await codeOf(() => client.startRun(ORDER, devices()))).toBe('console-unreachable');
  });

  it('starts anew where its memory cannot be read', () => {
    const file = join(folder, 'broken.json');
    writeFileSync(file, '{ not json');
    const known = new KnownDevices(file);
    expect(known.idOf(origin, 'box')).toBeNull();
    known.remember(origin, 'box', 'device-2');
    expect(known.idOf(origin, 'box')).toBe('device-2');
  });
});
