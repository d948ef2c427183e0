import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { createServer as createWeb } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MINUTE_MS, type Lane, type LaneEcho, type LaneMinute } from '@/core';
import { ConsoleClock, LaneKeeper, type OnEcho } from '@/session/lanes';
import type { LaneBeat } from '@/wire';
import { RequestKeys } from './echo-probe';
import { DiskShelf } from './disk-shelf';
import { openProbe } from './open-probe';

const LANE: Lane = { id: 'l1', name: 'Gateway', kind: 'echo', target: '192.0.2.1', role: 'gateway', everyMs: 1000 };
const AT = Date.UTC(2026, 10, 24, 9, 0, 0);
const ORIGIN = 'http://192.0.2.20:4870';
const minute = (fromMs: number, laneId = 'l1'): LaneMinute => ({
  ...{ laneId, fromMs, sent: 1, answered: 1, lostThere: 0, lostBack: 0 },
  ...{ minMs: 12, medianMs: 12, p95Ms: 12, maxMs: 12, raw: Uint8Array.of(0, 1) },
});

describe('what lanes said, kept on disk', () => {
  let folder: string;
  let shelf: DiskShelf;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-lanes-'));
    shelf = new DiskShelf(folder, ORIGIN);
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));
  const place = () => join(folder, readdirSync(folder)[0]!);

  it('comes out by hours, the oldest first, and stays until it is removed', async () => {
    await shelf.put([minute(AT + 3 * 3600_000)]);
    await shelf.put([minute(AT), minute(AT, 'l2')]);
    const first = await shelf.oldest();
    expect(first!.minutes.map(({ fromMs, laneId }) => [fromMs, laneId])).toEqual([
      [AT, 'l1'],
      [AT, 'l2'],
    ]);
    expect((await new DiskShelf(folder, ORIGIN).oldest())!.minutes).toEqual(first!.minutes);
    await shelf.remove(first!);
    expect((await shelf.oldest())!.minutes).toHaveLength(1);
  });

  it('takes what comes while a part is handed in for the next one', async () => {
    await shelf.put([minute(AT)]);
    const part = await shelf.oldest();
    await shelf.put([minute(AT + MINUTE_MS)]);
    await shelf.remove(part!);
    expect((await shelf.oldest())!.minutes.map(({ fromMs }) => fromMs)).toEqual([AT + MINUTE_MS]);
  });

  it('leaves out a line that a power cut left in the middle, and nothing else', async () => {
    await shelf.put([minute(AT), minute(AT + MINUTE_MS)]);
    const file = join(place(), readdirSync(place())[0]!);
    const text = readFileSync(file, 'utf8');
    writeFileSync(file, text.slice(0, -20));
    expect((await shelf.oldest())!.minutes.map(({ fromMs }) => fromMs)).toEqual([AT]);
  });

  it('is bounded: the oldest hours go first, and how many is told once', async () => {
    const long = { ...minute(0), raw: new Uint8Array(2500) };
    for (let hour = 0; hour < 9; hour += 1)
      await shelf.put(Array.from({ length: 480 }, () => ({ ...long, fromMs: AT + hour * 3600_000 })));
    expect(shelf.takeDropped()).toBeGreaterThan(0);
    expect(shelf.takeDropped()).toBe(0);
    const bytes = readdirSync(place()).reduce((sum, name) => sum + readFileSync(join(place(), name)).length, 0);
    expect(bytes).toBeLessThanOrEqual(12e6);
    expect((await shelf.oldest())!.minutes[0]!.fromMs).toBeGreaterThan(AT);
  });

  it('gives other consoles nothing of it', async () => {
    await shelf.put([minute(AT)]);
    expect(await new DiskShelf(folder, 'http://192.0.2.21:4870').oldest()).toBeNull();
  });
});

describe('keeping lanes', () => {
  let folder: string;
  let echo: Map<string, OnEcho>;
  let opened: string[];
  let closed: string[];
  let posted: { minutes: { fromMs: number; laneId: string }[] }[];
  let beats: LaneBeat[];
  let answer: () => Response;
  let steadyMs: number;
  let keeper: LaneKeeper;
  let clock: ConsoleClock;
  const make = () => {
    clock = new ConsoleClock(() => steadyMs);
    clock.learn(AT);
    return new LaneKeeper({
      ...{ clock, shelf: new DiskShelf(folder, ORIGIN), closeEveryMs: 3600_000, onNews: () => undefined },
      open: (lane, onEcho) => {
        opened.push(lane.target);
        echo.set(lane.id, onEcho);
        return { close: () => void closed.push(lane.target) };
      },
      post: (_, body) => {
        posted.push(body as (typeof posted)[0]);
        return Promise.resolve(answer());
      },
      onBeats: (of) => void beats.push(...of),
    });
  };
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-lanes-'));
    [echo, opened, closed, posted, beats] = [new Map(), [], [], [], []];
    steadyMs = 1000;
    answer = () => Response.json({ taken: 1, nowMs: AT + steadyMs });
    keeper = make();
  });
  afterEach(async () => {
    await keeper.close();
    rmSync(folder, { recursive: true, force: true });
  });
  const say = (echoes: readonly LaneEcho[], laneId = 'l1') => echoes.forEach((each) => echo.get(laneId)!(each));

  it('hands a minute in when it is over, and asks the console again where that is away', async () => {
    keeper.set([LANE], false);
    say([
      { atMs: AT + 500, ms: 12 },
      { atMs: AT + 1500, ms: null },
    ]);
    await keeper.handIn();
    expect(posted).toEqual([]);
    steadyMs += MINUTE_MS + 15_000;
    answer = () => new Response('gone', { status: 502 });
    await keeper.handIn();
    answer = () => Response.json({ taken: 1, nowMs: AT + steadyMs });
    await keeper.handIn();
    await keeper.handIn();
    expect(posted).toHaveLength(2);
    expect(posted[1]!.minutes).toMatchObject([{ laneId: 'l1', fromMs: AT, sent: 2, answered: 1, medianMs: 12 }]);
    expect(posted[1]).toEqual(posted[0]);
  });

  it('opens what is new, ends what is gone or is another one, and leaves the rest', () => {
    const other = { ...LANE, id: 'l2', target: '192.0.2.53' };
    keeper.set([LANE, other], false);
    keeper.set([LANE, { ...other, target: '192.0.2.54' }], false);
    expect(opened).toEqual(['192.0.2.1', '192.0.2.53', '192.0.2.54']);
    expect(closed).toEqual(['192.0.2.53']);
  });

  it('tells what it hears while somebody looks, and at first what no minute holds yet', async () => {
    keeper.set([LANE], false);
    say([{ atMs: AT + 500, ms: 12 }]);
    expect(beats).toEqual([]);
    keeper.set([LANE], true);
    expect(beats).toEqual([['l1', AT + 500, 12]]);
    say([{ atMs: AT + 1500, ms: null }]);
    while (beats.length < 2) await new Promise((resolve) => setImmediate(resolve));
    expect(beats[1]).toEqual(['l1', AT + 1500, null]);
  });

  it('goes on with its lanes after a start while the console is away', async () => {
    keeper.set([LANE], false);
    await keeper.close();
    opened.length = 0;
    keeper = make();
    await keeper.resume();
    expect(opened).toEqual([LANE.target]);
  });

  it('goes by the console’s clock: no way back for answers that took longer, but for a clock that was put right', () => {
    expect(clock.nowMs()).toBe(AT);
    steadyMs += 5000;
    expect(clock.nowMs()).toBe(AT + 5000);
    clock.learn(AT + 3000);
    expect(clock.nowMs()).toBe(AT + 5000);
    steadyMs += 4000;
    expect(clock.nowMs()).toBe(AT + 7000);
    clock.learn(AT + 86_400_000);
    expect(clock.nowMs()).toBe(AT + 86_400_000);
    clock.learn(AT + 10_000);
    expect(clock.nowMs()).toBe(AT + 10_000);
    steadyMs += 1000;
    expect(clock.nowMs()).toBe(AT + 11_000);
  });
});

describe('what asks for a lane', () => {
  const first = (lane: Partial<Lane>) =>
    new Promise<LaneEcho>((resolve) => {
      const probe = openProbe(
        { ...LANE, everyMs: 200, ...lane },
        (echo) => {
          resolve(echo);
          probe.close();
        },
        Date.now,
      );
    });

  it('the system’s ping, to this machine', async () => {
    const { ms } = await first({ target: '127.0.0.1' });
    expect(ms).toBeGreaterThan(0);
    expect(ms).toBeLessThan(1000);
  });

  it('a name that nobody knows is a silence', async () => {
    expect((await first({ target: 'nobody.invalid' })).ms).toBeNull();
    // A machine without names waits for its resolvers.
  }, 60_000);

  it('the handshake of a port; a refusal is an answer as well', async () => {
    const server = createServer((socket) => socket.destroy());
    await once(server.listen(0, '127.0.0.1'), 'listening');
    const { port } = server.address() as AddressInfo;
    expect((await first({ kind: 'connect', target: `127.0.0.1:${port}` })).ms).toBeGreaterThan(0);
    await new Promise((resolve) => server.close(resolve));
    expect((await first({ kind: 'connect', target: `127.0.0.1:${port}` })).ms).toBeGreaterThan(0);
  });

  it('the first byte of a page, and its silence', async () => {
    const server = createWeb((_, answer) => answer.end('here'));
    await once(server.listen(0, '127.0.0.1'), 'listening');
    const target = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
    expect((await first({ kind: 'web', target })).ms).toBeGreaterThan(0);
    await new Promise((resolve) => server.close(resolve));
    expect((await first({ kind: 'web', target })).ms).toBeNull();
  });

  it('requests whose number came round after 65 536 are others', () => {
    const keys = new RequestKeys(0);
    expect([65_534, 65_535, 0, 1, 65_535].map((seq) => keys.of(seq))).toEqual([65_534, 65_535, 65_536, 65_537, 65_535]);
  });
});
