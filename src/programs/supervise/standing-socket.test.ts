import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import WebSocket from 'ws';
import { DEVICE_COOKIE } from '@/services';
import {
  cookieFor,
  deviceForm,
  furnish,
  openTestConsole,
  type TestConsole,
} from '@/services/console/console-for-tests';
import { saveDevice } from '@/services/office';
import { AGENT_PROTOCOL, type StandingAnswer } from '@/wire';
import { STANDING_PATH } from '@/wire/console/device';
import { openStandingSocket } from './standing-socket';

const HELLO: StandingAnswer = {
  kind: 'hello',
  hello: {
    ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, clockMs: 0, outbox: 0, neighbours: [], can: [] },
    facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
  },
};

describe('the line of a device that stands by', () => {
  let console: TestConsole;
  let server: Server;
  let sockets: ReturnType<typeof openStandingSocket>;
  let siteId: string;
  let deviceId: string;
  let cookie: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    const saved = await saveDevice(console.context, siteId, null, deviceForm());
    if (!saved.ok) throw new Error(saved.fault.code);
    deviceId = saved.value.id;
    cookie = await cookieFor(console, deviceId);
    sockets = openStandingSocket(console.context, {
      page: { everyMs: 20, silentMs: 100 },
      program: { everyMs: 50, silentMs: 600 },
    });
    server = createServer().on('upgrade', sockets.upgrade);
    await once(server.listen(0, '127.0.0.1'), 'listening');
  });
  afterEach(async () => {
    await sockets.close();
    server.close();
    await console.close();
  });
  const open = (headers: Record<string, string>, autoPong = true) =>
    new WebSocket(`ws://127.0.0.1:${(server.address() as AddressInfo).port}${STANDING_PATH}`, { headers, autoPong });

  it('loses nothing of what is said before the console knows who speaks', async () => {
    const socket = open({ Cookie: `${DEVICE_COOKIE}=${cookie}` });
    // At once, as its first act.
    socket.on('open', () => socket.send(JSON.stringify(HELLO)));
    const changed = new Promise<void>((resolve) => {
      console.context.changes.listen(() => {
        void console.context.store.agents.byDevice(deviceId).then((agent) => {
          if (agent !== null) resolve();
        });
      });
    });
    await changed;
    expect((await console.context.store.agents.byDevice(deviceId))?.version).toBe('0.1.0');
  });

  it('is closed to whoever is no device, and says so; what he says changes nothing', async () => {
    const socket = open({ Cookie: `${DEVICE_COOKIE}=${deviceId}.0.forged` });
    socket.on('open', () => socket.send(JSON.stringify(HELLO)));
    const [code] = (await once(socket, 'close')) as [number];
    expect(code).toBe(4401);
    expect(await console.context.store.agents.byDevice(deviceId)).toBeNull();
  });

  it('is closed when nobody answers any more: that of a page soon, that of a program later', async () => {
    const another = async (name: string) => {
      const saved = await saveDevice(console.context, siteId, null, deviceForm({ name }));
      if (!saved.ok) throw new Error(saved.fault.code);
      return { Cookie: `${DEVICE_COOKIE}=${await cookieFor(console, saved.value.id)}` };
    };
    const Origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const [ofPage, ofProgram] = [{ ...(await another('Tablet')), Origin }, await another('Box')];
    const ended: string[] = [];
    const follow = (name: string, socket: WebSocket) =>
      once(socket, 'close').then(() => {
        ended.push(name);
      });
    const program = follow('program', open(ofProgram, false));
    const page = follow('page', open(ofPage, false));
    const awake = open({ Cookie: `${DEVICE_COOKIE}=${cookie}` });
    await Promise.all([program, page]);
    expect(ended).toEqual(['page', 'program']);
    expect(awake.readyState).toBe(WebSocket.OPEN);
  });

  it('is not opened by a page of another site', async () => {
    const socket = open({ Cookie: `${DEVICE_COOKIE}=${cookie}`, Origin: 'http://elsewhere.example' });
    const [error] = (await once(socket, 'error')) as [Error];
    expect(error.message).toMatch(/hang up|ECONNRESET|closed/);
  });
});
