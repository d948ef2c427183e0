import { createSocket, type RemoteInfo, type Socket } from 'node:dgram';
import { once } from 'node:events';
import { LaneBook, type Lane, type LaneEcho } from '@/core';
import { decodeSenderPacket, encodeReflectorPacket, stampKey } from '@/wire/peer/stamp';
import type { LaneProbe } from '@/session/lanes';
import { openStampProbe } from './stamp-probe';

const LANE: Lane = { id: 'l', name: 'Router', kind: 'stamp', target: '', role: 'gateway', everyMs: 20 };
const CLOCK = { synchronised: false, errorMs: 1000 } as const;

/** What other equipment does with the n-th packet that reaches it, from 0. */
type Manner = (place: number) => 'answers' | 'lost-there' | 'lost-back' | 'twice';

interface Equipment {
  readonly manner?: Manner;
  readonly key?: string;
  /** It copies the sender's number instead of counting. */
  readonly stateless?: boolean;
  /** For so long it holds a packet before it answers, ms. */
  readonly holdsMs?: number;
}

describe('a lane by STAMP', () => {
  let socket: Socket;
  let probe: LaneProbe | null = null;
  beforeEach(async () => {
    socket = createSocket('udp4');
    socket.bind(0, '127.0.0.1');
    await once(socket, 'listening');
  });
  afterEach(async () => {
    probe?.close();
    await new Promise((resolve) => socket.close(() => resolve(null)));
  });

  function reflect({ manner = () => 'answers', key, stateless = false, holdsMs = 0 }: Equipment): void {
    let [place, sequence] = [0, 0];
    const secret = stampKey(key);
    socket.on('message', (bytes: Buffer, from: RemoteInfo) => {
      const receivedMs = Date.now();
      const decoded = decodeSenderPacket(bytes, secret);
      if (!decoded.ok) return;
      const does = manner(place++);
      if (does === 'lost-there') return;
      const number = stateless ? decoded.packet.sequence : sequence++;
      if (does === 'lost-back') return;
      const head = {
        ...{ sequence: number, error: CLOCK, sessionId: decoded.packet.sessionId },
        receivedMs,
        senderTtl: 64,
      };
      setTimeout(() => {
        const reply = encodeReflectorPacket({ ...head, sentMs: Date.now() }, bytes, secret);
        for (let time = 0; time < (does === 'twice' ? 2 : 1); time += 1) socket.send(reply, from.port, from.address);
      }, holdsMs);
    });
  }

  /** Asks until so many requests have been answered, and closes the book over them. */
  async function asked(answers: number, lane: Partial<Lane> = {}) {
    const book = new LaneBook('l');
    const heard: LaneEcho[] = [];
    // All of it lies in one minute of the console's clock.
    const beganMs = performance.now();
    await new Promise<void>((resolve) => {
      const target = `127.0.0.1:${socket.address().port}`;
      const onEcho = (echo: LaneEcho, key?: number) => {
        book.note(echo, key);
        if (echo.ms === null) return;
        heard.push(echo);
        if (heard.length >= answers) resolve();
      };
      probe = openStampProbe({ ...LANE, target, ...lane }, onEcho, () => performance.now() - beganMs);
    });
    probe!.close();
    const [minute] = book.closed(3 * 60_000);
    return { minute: minute!, heard };
  }

  it('tells round trips, and on which way a packet was lost', async () => {
    const fates = [
      'answers',
      'lost-there',
      'answers',
      'lost-back',
      'lost-back',
      'answers',
      'twice',
      'answers',
    ] as const;
    reflect({ manner: (place) => fates[place] ?? 'answers' });
    const { minute, heard } = await asked(9);
    expect(minute).toMatchObject({ answered: minute.sent - 3, lostThere: 1, lostBack: 2 });
    for (const { ms } of heard) expect(ms).toBeGreaterThan(0);
  });

  it('says nothing of ways where the far end does not count', async () => {
    reflect({ manner: (place) => (place % 3 === 1 ? 'lost-back' : 'answers'), stateless: true });
    const { minute } = await asked(8);
    expect(minute.sent - minute.answered).toBeGreaterThan(2);
    expect(minute).toMatchObject({ lostThere: 0, lostBack: 0 });
  });

  it('takes off for how long the far end held the packet', async () => {
    reflect({ holdsMs: 60 });
    const { heard } = await asked(5, { everyMs: 100 });
    // The path itself is loopback; timers and the clock of whole milliseconds are late by little.
    expect(Math.min(...heard.map(({ ms }) => ms!))).toBeLessThan(30);
  });

  it.each(['a word that both know', '0x00112233445566778899aabbccddeeff'])('authenticated with %s', async (key) => {
    reflect({ key });
    const { minute } = await asked(3, { key });
    expect(minute.answered).toBeGreaterThanOrEqual(3);
  });

  it('takes nothing for an answer that the key does not prove', async () => {
    // It answers whatever comes, with a key of its own.
    let came = 0;
    const hears = new Promise<void>((resolve) =>
      socket.on('message', (bytes: Buffer, from: RemoteInfo) => {
        const head = {
          sequence: came,
          error: CLOCK,
          sessionId: 0,
          receivedMs: Date.now(),
          sentMs: Date.now(),
          senderTtl: 64,
        };
        socket.send(encodeReflectorPacket(head, bytes, stampKey('of somebody else')), from.port, from.address);
        if ((came += 1) >= 5) resolve();
      }),
    );
    const heard: LaneEcho[] = [];
    const target = `127.0.0.1:${socket.address().port}`;
    probe = openStampProbe({ ...LANE, target, key: 'ours' }, (echo) => heard.push(echo), Date.now);
    await hears;
    expect(heard.length).toBeGreaterThan(2);
    expect(heard.filter(({ ms }) => ms !== null)).toEqual([]);
  });

  it('counts requests to where nobody answers, or whose name nobody knows', async () => {
    const heard = (target: string) =>
      new Promise<LaneEcho>((resolve) => {
        probe = openStampProbe({ ...LANE, target }, (echo) => resolve(echo), Date.now);
      });
    const { port } = socket.address();
    expect((await heard(`127.0.0.1:${port}`)).ms).toBeNull();
    probe?.close();
    expect((await heard('nobody.invalid:862')).ms).toBeNull();
    // A machine without names waits for its resolvers.
  }, 60_000);
});
