import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import { decodeReflectorPacket, encodeSenderPacket, stampKey } from '@/wire/peer/stamp';
import { StampReflector } from './stamp-reflector';

const ERROR = { synchronised: false, errorMs: 1000 };
const QUIET_MS = 60;
const wallMs = () => performance.timeOrigin + performance.now();

describe('a STAMP reflector', () => {
  let reflector: StampReflector;
  let client: Socket;
  let replies: Buffer[];
  beforeEach(async () => {
    reflector = await StampReflector.start({ port: 0, host: '127.0.0.1', openTo: [], wallMs });
    client = createSocket('udp4');
    replies = [];
    client.on('message', (bytes) => replies.push(bytes));
    client.connect(reflector.port, '127.0.0.1');
    await once(client, 'connect');
  });
  afterEach(async () => {
    client.close();
    await reflector.close();
  });

  const packet = (sequence: number, sessionId: number, key: Uint8Array | null = null, size = 0) =>
    encodeSenderPacket({ sequence, sentMs: wallMs(), error: ERROR, sessionId }, key, size);
  const sendAll = async (...packets: Uint8Array[]) => {
    for (const each of packets) client.send(each);
    await new Promise((resolve) => setTimeout(resolve, QUIET_MS));
    return replies;
  };
  const admit = (authenticated = false, address = '127.0.0.1', spend: (bytes: number) => boolean = () => true) =>
    reflector.admit(address, authenticated, spend);

  it('answers a ticketed client, numbers its replies, and never sends more than it got', async () => {
    const { sessionId, received } = admit();
    const sent = [packet(0, sessionId), packet(1, sessionId, null, 500), packet(7, sessionId)];
    const got = await sendAll(...sent);
    expect(got.map(({ length }) => length)).toEqual(sent.map(({ length }) => length));
    const numbers = got.map((bytes) => {
      const decoded = decodeReflectorPacket(bytes, null);
      return decoded.ok ? [decoded.packet.sender.sequence, decoded.packet.sequence] : decoded.why;
    });
    expect(numbers).toEqual([
      [0, 0],
      [1, 1],
      [7, 2],
    ]);
    expect(received()).toBe(3);
  });

  it('answers an authenticated client only with a right HMAC', async () => {
    const { sessionId, key } = admit(true);
    const forged = packet(0, sessionId, key);
    forged[100]! ^= 1;
    const got = await sendAll(forged, packet(0, sessionId), packet(1, sessionId, key));
    expect(got).toHaveLength(1);
    expect(decodeReflectorPacket(got[0]!, key)).toMatchObject({ ok: true, packet: { sender: { sequence: 1 } } });
    expect(reflector.unanswered.get('hmac-wrong')).toBe(1);
  });

  it('says nothing to strangers, to other addresses than the ticket’s, and to sessions that have ended', async () => {
    const elsewhere = admit(false, '192.0.2.9');
    const ended = admit();
    ended.close();
    expect(await sendAll(packet(0, 0), packet(0, elsewhere.sessionId), packet(0, ended.sessionId))).toEqual([]);
    expect(reflector.unanswered.get('stranger')).toBe(3);
  });

  it('says nothing to what is truncated, oversized, without a time, or noise', async () => {
    const { sessionId } = admit();
    const whole = packet(0, sessionId);
    const timeless = Uint8Array.from(whole).fill(0, 4, 12);
    const noise = Uint8Array.from({ length: 300 }, (_, index) => (index * 73 + 11) % 251);
    const empty = new Uint8Array(1);
    expect(await sendAll(whole.subarray(0, 43), packet(0, sessionId, null, 9001), timeless, noise, empty)).toEqual([]);
    expect(reflector.unanswered.get('too-short')).toBe(1);
    expect(reflector.unanswered.get('too-long')).toBe(1);
    expect(reflector.unanswered.get('timestamp-missing')).toBe(1);
  });

  it('answers a replayed packet at most once each time it comes, under a new number of its own', async () => {
    const { sessionId } = admit();
    const replayed = packet(3, sessionId);
    const got = await sendAll(replayed, replayed);
    const numbers = got.map((bytes) => {
      const decoded = decodeReflectorPacket(bytes, null);
      return decoded.ok ? decoded.packet.sequence : null;
    });
    expect(numbers).toEqual([0, 1]);
  });

  it('stops answering when the session may move no more bytes', async () => {
    let left = 200;
    const { sessionId } = admit(false, '127.0.0.1', (bytes) => (left -= bytes) >= 0);
    expect(await sendAll(packet(0, sessionId), packet(1, sessionId), packet(2, sessionId))).toHaveLength(2);
    expect(reflector.unanswered.get('limit')).toBe(1);
  });

  it('answers equipment at an address it was opened to, without a ticket', async () => {
    await reflector.close();
    reflector = await StampReflector.start({ port: 0, host: '127.0.0.1', openTo: ['127.0.0.1'], wallMs });
    client.disconnect();
    client.connect(reflector.port, '127.0.0.1');
    await once(client, 'connect');
    expect(await sendAll(packet(0, 0), packet(1, 0))).toHaveLength(2);
  });

  it('answers whoever proves the key that was shared, without a ticket, and nobody else', async () => {
    await reflector.close();
    const sharedKey = stampKey('a word that both know');
    reflector = await StampReflector.start({ port: 0, host: '127.0.0.1', openTo: [], sharedKey, wallMs });
    client.disconnect();
    client.connect(reflector.port, '127.0.0.1');
    await once(client, 'connect');
    const got = await sendAll(
      packet(0, 0),
      packet(1, 0, stampKey('another')),
      packet(2, 0, sharedKey),
      packet(3, 0, sharedKey),
    );
    const numbers = got.map((bytes) => {
      const decoded = decodeReflectorPacket(bytes, sharedKey);
      return decoded.ok ? [decoded.packet.sender.sequence, decoded.packet.sequence] : decoded.why;
    });
    expect(numbers).toEqual([
      [2, 0],
      [3, 1],
    ]);
    expect(reflector.unanswered.get('stranger')).toBe(2);
  });
});
