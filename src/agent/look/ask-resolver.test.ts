import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import { createServer, type AddressInfo, type Server } from 'node:net';
import { decode, encode, streamDecode, streamEncode, type DecodedPacket, type Packet } from 'dns-packet';
import { askResolver } from './ask-resolver';

const TRUNCATED = 1 << 9;

type Reply = (asked: Packet) => Packet | Buffer | null;
const answered = (asked: Packet, facts: Partial<Packet> = {}): Packet => ({
  ...{ type: 'response', id: asked.id ?? 0, questions: asked.questions ?? [] },
  answers: [{ type: 'A', name: asked.questions![0]!.name, ttl: 60, data: '203.0.113.80' }],
  ...facts,
});

describe('asking a resolver', () => {
  let udp: Socket;
  let tcp: Server;
  let reply: Reply;
  let overTcp: Reply;
  let resolver: string;
  beforeEach(async () => {
    [reply, overTcp] = [answered, answered];
    udp = createSocket('udp4').on('message', (text, from) => {
      const said = reply(decode(text));
      if (said !== null) udp.send(Buffer.isBuffer(said) ? said : encode(said), from.port, from.address);
    });
    tcp = createServer((socket) => {
      socket.on('error', () => undefined);
      socket.on('data', (text) => {
        const said = overTcp(streamDecode(text));
        if (said === null) socket.end();
        else socket.write(Buffer.isBuffer(said) ? said : streamEncode(said));
      });
    });
    // This one first: of the ports of UDP hardly any is taken.
    await once(tcp.listen(0, '127.0.0.1'), 'listening');
    const { port } = tcp.address() as AddressInfo;
    await new Promise<void>((resolve) => udp.bind(port, '127.0.0.1', resolve));
    resolver = `127.0.0.1#${port}`;
  });
  afterEach(() => {
    udp.close();
    tcp.close();
  });

  it('gives what it said, and how long it took', async () => {
    reply = (asked) => answered(asked, { flags: 1 << 5 });
    const { ms, ...said } = await askResolver(resolver, 'example.com');
    expect(said).toEqual({ code: 'NOERROR', addresses: ['203.0.113.80'], authentic: true });
    expect(ms).toBeGreaterThan(0);
  });

  it('asks whether signatures were checked, and not for the signatures: what was asked so is in no memory of many a router', async () => {
    let heard: Packet | null = null;
    reply = (asked) => {
      heard = asked;
      return answered(asked);
    };
    await askResolver(resolver, 'example.com');
    const { flag_ad: checked, additionals } = heard as unknown as DecodedPacket;
    const [opt] = additionals as readonly { readonly type: string; readonly flag_do?: boolean }[];
    expect([checked, opt!.type, opt!.flag_do]).toEqual([true, 'OPT', false]);
  });

  it('tells that a name does not exist', async () => {
    reply = (asked) => answered(asked, { answers: [], flags: 3 });
    expect(await askResolver(resolver, 'nothing.example.com')).toMatchObject({ code: 'NXDOMAIN', addresses: [] });
  });

  it('asks again over TCP what was too large for UDP', async () => {
    reply = (asked) => answered(asked, { answers: [], flags: TRUNCATED });
    expect(await askResolver(resolver, 'example.com')).toMatchObject({ addresses: ['203.0.113.80'] });
  });

  it('asks over TCP from the beginning where that is wanted', async () => {
    reply = () => null;
    expect(await askResolver(`tcp:${resolver}`, 'example.com')).toMatchObject({ code: 'NOERROR' });
  });

  it.each([
    ['garbage', () => Buffer.from([1, 2, 3])],
    ['an answer to another number', (asked: Packet) => answered(asked, { id: (asked.id ?? 0) ^ 1 })],
    ['nothing', () => null],
  ] as const)('%s is no answer: it did not answer', async (_, said) => {
    reply = said;
    await expect(askResolver(resolver, 'example.com', 150)).rejects.toThrow('it did not answer');
  });

  it('an answer to another name is none', async () => {
    reply = (asked) => answered(asked, { questions: [{ type: 'A', name: 'other.example.net' }] });
    await expect(askResolver(resolver, 'example.com')).rejects.toThrow('another question');
  });

  it('says at once that nobody listens there, or hangs up', async () => {
    overTcp = () => null;
    await expect(askResolver(`tcp:${resolver}`, 'example.com')).rejects.toThrow('it closed the connection');
    const { port } = udp.address();
    await new Promise<void>((resolve) => udp.close(() => resolve()));
    await expect(askResolver(`127.0.0.1#${port}`, 'example.com')).rejects.toThrow('ECONNREFUSED');
    udp = createSocket('udp4');
  });
});
