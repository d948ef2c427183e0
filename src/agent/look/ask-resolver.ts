import { createSocket } from 'node:dgram';
import { connect as connectTcp, isIPv6 } from 'node:net';
import { connect as connectTls } from 'node:tls';
import { decode, encode, streamDecode, streamEncode, type DecodedPacket, type Packet } from 'dns-packet';

const PATIENCE_MS = 2500;
const DNS_PORT = 53;
const TLS_PORT = 853;

export interface ResolverReply {
  readonly ms: number;
  readonly code: string;
  readonly addresses: readonly string[];
  readonly authentic: boolean;
}

const AUTHENTIC_DATA = 1 << 5;
const RECURSION_DESIRED = 1 << 8;

/**
 * Whether signatures were checked is asked by the bit that says so (AD, RFC 6840 §5.7), without asking for the signatures themselves
 * (DO, RFC 3225): no program that opens a page does, and many a router has in its memory only what was asked without.
 */
function question(name: string): Packet {
  return {
    type: 'query',
    id: Math.floor(Math.random() * 0xffff) + 1,
    flags: RECURSION_DESIRED | AUTHENTIC_DATA,
    questions: [{ type: 'A', name }],
    additionals: [
      {
        type: 'OPT',
        name: '.',
        udpPayloadSize: 1232,
        extendedRcode: 0,
        ednsVersion: 0,
        flags: 0,
        flag_do: false,
        options: [],
      },
    ],
  };
}

/** Truncated over UDP (RFC 1035, 4.2.1): it is to be asked again over TCP. */
class Truncated extends Error {}

function readReply(asked: Packet, packet: DecodedPacket, name: string, ms: number): ResolverReply {
  if (packet.id !== asked.id) throw new Error('it answered another question');
  const about = packet.questions?.[0]?.name.toLowerCase();
  if (about !== undefined && about !== name.toLowerCase()) throw new Error('it answered another question');
  if (packet.flag_tc) throw new Truncated();
  const { rcode } = packet as DecodedPacket & { readonly rcode?: string };
  return {
    ms,
    code: rcode ?? 'NOERROR',
    addresses: (packet.answers ?? []).flatMap((answer) =>
      answer.type === 'A' || answer.type === 'AAAA' ? [String(answer.data)] : [],
    ),
    authentic: packet.flag_ad === true,
  };
}

type Begin = (done: (reply: Uint8Array) => void, fail: (error: Error) => void) => () => void;

/** Begins, and ends what was begun: with an answer, a failure, or when the patience is over. */
function patiently(patienceMs: number, begin: Begin): Promise<{ readonly reply: Buffer; readonly ms: number }> {
  return new Promise((resolve, reject) => {
    const fromMs = performance.now();
    let end: (() => void) | null = null;
    const over = (then: () => void) => {
      clearTimeout(timer);
      end?.();
      then();
    };
    const timer = setTimeout(() => over(() => reject(new Error('it did not answer'))), patienceMs);
    end = begin(
      (reply) => {
        const ms = performance.now() - fromMs;
        over(() => resolve({ reply: Buffer.from(reply), ms }));
      },
      (error) => over(() => reject(error)),
    );
  });
}

/** "192.0.2.1", "192.0.2.1#5353" or "2001:db8::1" as host and port. */
export function hostAndPort(resolver: string, usual: number): { host: string; port: number } {
  const [host, port] = resolver.split('#');
  return { host: host!, port: port === undefined ? usual : Number(port) };
}

async function overUdp(resolver: string, name: string, patienceMs: number): Promise<ResolverReply> {
  const { host, port } = hostAndPort(resolver, DNS_PORT);
  const asked = question(name);
  const { reply, ms } = await patiently(patienceMs, (done, fail) => {
    const socket = createSocket(isIPv6(host) ? 'udp6' : 'udp4');
    socket.once('error', fail);
    // Connected: only this resolver can answer, and a port that nobody listens at is told.
    socket.connect(port, host, () => socket.send(encode(asked)));
    socket.on('message', (text) => {
      // An answer to an older question is none to this one.
      if (text.length > 2 && text.readUInt16BE(0) === asked.id) done(text);
    });
    return () => socket.close();
  });
  return readReply(asked, decode(reply), name, ms);
}

async function overStream(resolver: string, name: string, secure: boolean, patienceMs: number): Promise<ResolverReply> {
  const { host, port } = hostAndPort(resolver, secure ? TLS_PORT : DNS_PORT);
  const asked = question(name);
  const { reply, ms } = await patiently(patienceMs, (done, fail) => {
    const begin = () => socket.write(streamEncode(asked));
    // Whose certificate it is does not matter to how long it takes.
    const socket = secure
      ? connectTls({ host, port, rejectUnauthorized: false }, begin)
      : connectTcp({ host, port }, begin);
    let got = Buffer.alloc(0);
    socket.once('error', fail);
    socket.once('close', () => fail(new Error('it closed the connection')));
    socket.on('data', (part: Buffer) => {
      got = Buffer.concat([got, part]);
      if (got.length > 2 && got.length >= 2 + got.readUInt16BE(0)) done(got);
    });
    return () => socket.destroy();
  });
  return readReply(asked, streamDecode(reply) as DecodedPacket, name, ms);
}

async function overHttps(url: string, name: string, patienceMs: number): Promise<ResolverReply> {
  // RFC 8484: the number is 0, so that answers can be cached.
  const asked = { ...question(name), id: 0 };
  const fromMs = performance.now();
  const answer = await fetch(url, {
    method: 'POST',
    headers: { 'Content-Type': 'application/dns-message', Accept: 'application/dns-message' },
    body: new Uint8Array(encode(asked)),
    redirect: 'error',
    signal: AbortSignal.timeout(patienceMs),
  });
  if (!answer.ok) throw new Error(`it answered with ${answer.status}`);
  const reply = Buffer.from(await answer.arrayBuffer());
  return readReply(asked, decode(reply), name, performance.now() - fromMs);
}

/**
 * Asks a resolver for the address of a name: `ADDRESS` over UDP, over TCP where the answer is too large (RFC 7766), `tcp:ADDRESS`,
 * `tls:ADDRESS` (RFC 7858), or an https address (RFC 8484). Throws an Error that says what failed.
 */
export async function askResolver(resolver: string, name: string, patienceMs = PATIENCE_MS): Promise<ResolverReply> {
  if (resolver.startsWith('https:')) return overHttps(resolver, name, patienceMs);
  if (resolver.startsWith('tls:')) return overStream(resolver.slice(4), name, true, patienceMs);
  if (resolver.startsWith('tcp:')) return overStream(resolver.slice(4), name, false, patienceMs);
  try {
    return await overUdp(resolver, name, patienceMs);
  } catch (error) {
    if (error instanceof Truncated) return overStream(resolver, name, false, patienceMs);
    throw error;
  }
}
