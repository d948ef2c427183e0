import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { WebSocketServer, type WebSocket } from 'ws';
import type { AgentHello, StandingOrder } from '@/wire';
import { keepStandingLine, type StandingLineOptions } from './standing-line';

const HELLO: AgentHello = {
  ...{ version: '0.1.0', protocol: 1, clockMs: 0, outbox: 0, neighbours: [], can: [] },
  facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
};

/** A console of which only the line is there. */
async function openConsole(port = 0) {
  const server = new WebSocketServer({ host: '127.0.0.1', port });
  await once(server, 'listening');
  const cookies: (string | undefined)[] = [];
  const heard: unknown[] = [];
  const opened: WebSocket[] = [];
  server.on('connection', (socket, request) => {
    cookies.push(request.headers.cookie);
    opened.push(socket);
    socket.on('message', (text: Buffer) => heard.push(JSON.parse(text.toString())));
  });
  return {
    origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    port: (server.address() as AddressInfo).port,
    ...{ cookies, heard, opened },
    /** As when its process dies: every line is cut. */
    kill: async () => {
      for (const socket of server.clients) socket.terminate();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

describe('the line of an agent to its console', () => {
  const stop = () => new AbortController();
  const line = (origin: string, change: Partial<StandingLineOptions> = {}) => {
    const orders: StandingOrder[] = [];
    const stands: string[] = [];
    const ending = stop();
    const ended = keepStandingLine({
      ...{ origin, cookie: () => 'device.1.proof', hello: () => Promise.resolve(HELLO), signal: ending.signal },
      onOrder: (order) => orders.push(order),
      onHeard: (heard, why) => stands.push(heard ? 'heard' : why),
      ...change,
    });
    return { orders, stands, ended, end: () => ending.abort() };
  };
  const until = async (holds: () => boolean) => {
    while (!holds()) await new Promise((resolve) => setImmediate(resolve));
  };

  it('says what the machine is, proves who it is, and hands on what it is asked', async () => {
    const console = await openConsole();
    const { orders, ended, end } = line(console.origin);
    await until(() => console.heard.length > 0);
    expect(console.cookies).toEqual(['bent-straw-device=device.1.proof']);
    expect(console.heard).toEqual([{ kind: 'hello', hello: HELLO }]);
    const asked = { kind: 'asked', turnId: 't', by: 'Ines', reach: 'local', profile: 'quick', inMs: 0 } as const;
    console.opened[0]!.send(JSON.stringify(asked));
    // What a later version might say is none of its business.
    console.opened[0]!.send(JSON.stringify({ kind: 'dance' }));
    console.opened[0]!.send('{');
    console.opened[0]!.send(JSON.stringify({ kind: 'withdrawn', turnId: 't' }));
    await until(() => orders.length === 2);
    expect(orders).toEqual([asked, { kind: 'withdrawn', turnId: 't' }]);
    end();
    expect(await ended).toBeNull();
    await console.kill();
  });

  it('is opened again when the console comes back, with the cookie of then', async () => {
    const console = await openConsole();
    let cookie = 'first';
    const { stands, ended, end } = line(console.origin, { cookie: () => cookie });
    await until(() => stands.length === 1);
    cookie = 'second';
    await console.kill();
    const again = await openConsole(console.port);
    await until(() => again.cookies.length > 0);
    expect(again.cookies).toEqual(['bent-straw-device=second']);
    await until(() => stands.at(-1) === 'heard');
    expect(stands.length).toBeGreaterThanOrEqual(3);
    end();
    expect(await ended).toBeNull();
    await again.kill();
  });

  it.each(['removed', 'elsewhere', 'other-version'] as const)(
    'ends for good when it is dismissed: %s',
    async (reason) => {
      const console = await openConsole();
      const { ended } = line(console.origin);
      await until(() => console.opened.length > 0);
      console.opened[0]!.send(JSON.stringify({ kind: 'dismissed', reason } satisfies StandingOrder));
      console.opened[0]!.close();
      expect(await ended).toBe(reason);
      expect(console.opened).toHaveLength(1);
      await console.kill();
    },
  );

  it('ends for good where the cookie proves no device', async () => {
    const console = await openConsole();
    const { ended } = line(console.origin);
    await until(() => console.opened.length > 0);
    console.opened[0]!.close(4401, 'not joined');
    expect(await ended).toBe('not-joined');
    await console.kill();
  });

  it('is given up at once when the agent is stopped while nobody answers', async () => {
    const { stands, ended, end } = line('http://127.0.0.1:9');
    await until(() => stands.length > 0);
    expect(stands[0]).toMatch(/ECONNREFUSED/);
    end();
    expect(await ended).toBeNull();
  });
});
