import { once } from 'node:events';
import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import fc from 'fast-check';
import { LineQueue } from './line-queue';
import { readPracticeDocument } from './practice-config';
import { startPracticeLine } from './practice-line';

const line = {
  name: 'Tarnfell Fibre 500/100',
  listenPort: 4871,
  to: { host: '127.0.0.1', port: 4872 },
  roundTripMs: 14,
  down: { rateMbps: 500, queueMs: 25 },
  up: { rateMbps: 100, queueMs: 220 },
};

describe('the document of practice lines', () => {
  const complaintsAbout = (lines: unknown) => {
    const read = readPracticeDocument(JSON.stringify({ lines }));
    return read.ok ? [] : read.complaints;
  };

  it('is read when it is right', () => {
    expect(readPracticeDocument(JSON.stringify({ lines: [line] }))).toEqual({ ok: true, document: { lines: [line] } });
  });

  it('is refused with the place of each mistake', () => {
    expect(complaintsAbout([{ ...line, up: { rateMbps: -1, queueMs: 220 } }])).toEqual([
      expect.stringMatching(/^lines\[0\]\.up\.rateMbps: /),
    ]);
    expect(complaintsAbout([{ ...line, roundTripMs: 'soon' }])[0]).toMatch(/^lines\[0\]\.roundTripMs: /);
    expect(complaintsAbout([{ ...line, colour: 'red' }])[0]).toMatch(/colour/);
    expect(complaintsAbout([line, line])[0]).toMatch(/port 4871 is used by two lines/);
    expect(complaintsAbout([])[0]).toMatch(/^lines: /);
    expect(readPracticeDocument('{')).toMatchObject({ ok: false, complaints: [expect.stringMatching(/^not JSON/)] });
  });
});

describe('one direction of a line', () => {
  const options = { rateBps: 8e6, queueMs: 100, delayMs: 7 };

  it('lets bytes out at its rate, after its delay, in order', () => {
    const queue = new LineQueue<string>(options);
    queue.enter('a', Buffer.alloc(1000), 0);
    queue.enter('b', Buffer.alloc(1000), 0);
    expect(queue.nextDueMs()).toBeCloseTo(8);
    expect(queue.takeDue(8.5).map(({ owner }) => owner)).toEqual(['a']);
    expect(queue.takeDue(9.5).map(({ owner }) => owner)).toEqual(['b']);
    expect(queue.nextDueMs()).toBeNull();
  });

  it('keeps what arrives later waiting behind what is queued: a full queue adds nine tenths of its length on average', () => {
    const fullAt = (nowMs: number) => {
      const queue = new LineQueue<string>(options);
      while (queue.roomBytes(nowMs) >= 1000) queue.enter('bulk', Buffer.alloc(1000), nowMs);
      return queue;
    };
    const filled = Array.from({ length: 30 }, (_, k) => fullAt(k * 50).waitingBytes(k * 50));
    expect(filled.reduce((sum, bytes) => sum + bytes, 0) / 30 / 100_000).toBeCloseTo(0.9, 1);
    expect(Math.max(...filled)).toBeLessThanOrEqual(100_000);
    const queue = fullAt(1499.999);
    queue.enter('probe', Buffer.alloc(4), 1499.999);
    const through = queue.takeDue(3000);
    expect(through.at(-1)).toMatchObject({ owner: 'probe' });
    expect(through.at(-1)!.dueMs - 1500).toBeGreaterThan(98 + 7);
    expect(through.at(-1)!.dueMs - 1500).toBeLessThan(100.1 + 7);
  });

  it('tells when there will be room again', () => {
    const queue = new LineQueue<string>(options);
    queue.enter('bulk', Buffer.alloc(72_000), 0);
    expect(queue.roomBytes(0)).toBeCloseTo(0);
    expect(queue.roomAtMs(1000, 0)).toBeCloseTo(1);
    expect(queue.roomBytes(queue.roomAtMs(1000, 0))).toBeGreaterThanOrEqual(1000);
  });

  it('never carries more than its rate over any stretch, whatever comes in', () => {
    const arrivals = fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 1, max: 5000 })), {
      minLength: 1,
    });
    fc.assert(
      fc.property(arrivals, (sizes) => {
        const queue = new LineQueue<number>(options);
        let nowMs = 0;
        for (const [pause, bytes] of sizes) {
          nowMs += pause / 10;
          queue.enter(0, Buffer.alloc(bytes), nowMs);
        }
        const out = queue.takeDue(Infinity);
        for (const [index, slice] of out.entries()) {
          const before = out[index - 1];
          if (before !== undefined)
            expect(slice.dueMs - before.dueMs).toBeGreaterThanOrEqual((slice.data.length * 8) / 8000 - 1e-6);
        }
        expect(out.reduce((sum, slice) => sum + slice.data.length, 0)).toBe(
          sizes.reduce((sum, [, bytes]) => sum + bytes, 0),
        );
      }),
    );
  });
});

describe('a practice line', () => {
  async function echoBehindLine() {
    const far = createServer({ allowHalfOpen: true }, (socket) => socket.pipe(socket)).listen(0, '127.0.0.1');
    await once(far, 'listening');
    const { port } = far.address() as AddressInfo;
    const config = { ...line, listenPort: 0, to: { host: '127.0.0.1', port } };
    const practice = await startPracticeLine(config, () => performance.now(), '127.0.0.1');
    return { far, practice };
  }

  async function readAll(socket: Socket): Promise<Buffer> {
    const parts: Buffer[] = [];
    for await (const part of socket) parts.push(part as Buffer);
    return Buffer.concat(parts);
  }

  it('carries every byte unchanged both ways and passes on the end', async () => {
    const { far, practice } = await echoBehindLine();
    const sent = Buffer.from(Array.from({ length: 700_000 }, (_, index) => index % 251));
    const client = connect({ port: practice.port, host: '127.0.0.1', allowHalfOpen: true });
    client.end(sent);
    expect((await readAll(client)).equals(sent)).toBe(true);
    await practice.close();
    far.close();
  });

  it('breaks the far connection when the near one breaks', async () => {
    const { far, practice } = await echoBehindLine();
    const client = connect(practice.port, '127.0.0.1');
    const [farSide] = (await once(far, 'connection')) as [Socket];
    farSide.on('error', () => undefined);
    const closed = once(farSide, 'close');
    client.resetAndDestroy();
    await closed;
    await practice.close();
    far.close();
  });

  it('ends a connection when nothing listens behind it', async () => {
    const config = { ...line, listenPort: 0, to: { host: '127.0.0.1', port: 1 } };
    const practice = await startPracticeLine(config, () => performance.now(), '127.0.0.1');
    const client = connect(practice.port, '127.0.0.1');
    client.on('error', () => undefined);
    await new Promise((resolve) => client.once('close', resolve));
    await practice.close();
  });
});
