import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createSecureServer, type Http2SecureServer } from 'node:http2';
import type { AddressInfo } from 'node:net';
import { generate } from 'selfsigned';
import {
  downloadOnly,
  finalBytes,
  NO_SAMPLES,
  reportOf,
  RUN_PROFILES,
  type RunConditions,
  type RunProfile,
  type WebFarEnd,
} from '@/core';
import { startPracticeLine } from '@/peer';
import { startRun, type RunNews } from '../../run/run-runner';
import { openWebTransport } from './web-transport';
import type { WebManners } from './web-place';

const SIZE = 40_000_000;
const CONTENT = Buffer.alloc(1_000_000, 7);
const MANNERS: WebManners = { userAgent: 'bent-straw-agent/0 (tech@larkspur.example)' };
/** Long enough for both phases, too short for a figure. */
const SHORT: RunProfile = {
  ...downloadOnly(RUN_PROFILES.standard, 1e9),
  idleMs: 600,
  mostDirectionMs: 700,
  silenceMs: 600,
  openDeadlineMs: 5000,
  steady: { ...RUN_PROFILES.standard.steady, leastCountedMs: 200, countedRoundTrips: 2 },
  streams: { first: 2, most: 2 },
};

type Asked = Pick<IncomingMessage, 'url' | 'headers'>;
type Answer = (asked: Asked, answer: ServerResponse) => void;
type Ending = Exclude<RunNews, { kind: 'progress' }>;

/** The part of a page that was asked for, in pieces, as fast as it is taken. */
const page =
  (takesRanges: boolean): Answer =>
  ({ headers }, answer) => {
    const [, from, to] = /^bytes=(\d+)-(\d*)$/.exec((takesRanges && headers.range) || '') ?? [];
    const first = Number(from ?? 0);
    const last = to === undefined || to === '' ? SIZE - 1 : Number(to);
    answer.writeHead(from === undefined ? 200 : 206, {
      'Content-Length': last - first + 1,
      ...(from !== undefined && { 'Content-Range': `bytes ${first}-${last}/${SIZE}` }),
    });
    let left = last - first + 1;
    const more = () => {
      while (left > 0) {
        const part = CONTENT.subarray(0, Math.min(left, CONTENT.length));
        left -= part.length;
        if (!answer.write(part)) return void answer.once('drain', more);
      }
      answer.end();
    };
    more();
  };

const open: { close(): void; closeAllConnections?(): void }[] = [];
afterEach(() => {
  for (const server of open.splice(0)) {
    server.closeAllConnections?.();
    server.close();
  }
});

async function serve(answer: Answer): Promise<{ url: string; asked: Asked[]; server: Server }> {
  const asked: Asked[] = [];
  const server = createServer((request, response) => {
    asked.push({ url: request.url, headers: request.headers });
    answer(request, response);
  }).listen(0, '127.0.0.1');
  open.push(server);
  await once(server, 'listening');
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/large.bin`, asked, server };
}

function run(pages: readonly string[], profile = SHORT, mostBytes = 1e9, manners = MANNERS): Promise<Ending> {
  const web: WebFarEnd = { pages, mostBytes, contact: 'tech@larkspur.example' };
  return new Promise((resolve) => {
    startRun(openWebTransport(web, manners), profile, (news) => news.kind !== 'progress' && resolve(news));
  });
}

/** On a machine that was held up a server is silent for longer than it will be anywhere else. */
const PATIENT_MS = 10_000;

async function finished(pages: readonly string[], profile = SHORT, mostBytes?: number, manners?: WebManners) {
  const news = await run(pages, { ...profile, silenceMs: PATIENT_MS }, mostBytes, manners);
  if (news.kind !== 'finished') throw new Error(`${news.reason}: ${JSON.stringify(news.samples.client?.troubles)}`);
  return news;
}

const CONDITIONS: RunConditions = {
  ...{ reach: 'internet', link: { medium: 'unknown' }, plan: null, sameMachine: false, practice: true, ipVersion: 4 },
  ...{ pageHiddenMs: 0, peerLinkBps: null, otherPeerThanUsual: false, receipt: null, farEnd: 'web' },
};

describe('a run against a web server', () => {
  it('measures what the line in between carries down, and says that nothing was sent up', async () => {
    const { server } = await serve(page(true));
    const { port } = server.address() as AddressInfo;
    const line = await startPracticeLine(
      {
        ...{ name: 'line', listenPort: 0, to: { host: '127.0.0.1', port }, roundTripMs: 20 },
        ...{ down: { rateMbps: 40, queueMs: 60 }, up: { rateMbps: 10, queueMs: 60 } },
      },
      () => performance.now(),
      '127.0.0.1',
    );
    const measured = async () => {
      const { samples, receipt } = await finished(
        [`http://127.0.0.1:${line.port}/a`],
        downloadOnly(RUN_PROFILES.quick, 1e9),
      );
      return { samples, receipt, report: reportOf(samples, CONDITIONS) };
    };
    // The line is in this process as well: where that was held up, it carried less, and is asked anew.
    let found = await measured();
    for (let more = 2; more > 0 && found.report.down.rate!.steadyBps < 0.97 * 40e6; more -= 1) found = await measured();
    await line.close();
    const { samples, receipt, report } = found;
    expect(samples.phases.map(({ phase }) => phase)).toEqual(['idle', 'download']);
    // What is lost of 40 Mb/s is the head of each packet's own framing, which this line does not have.
    expect(report.down.rate!.steadyBps / 40e6).toBeGreaterThan(0.97);
    expect(report.down.rate!.steadyBps / 40e6).toBeLessThan(1.01);
    expect([report.up.rate, report.up.bytes, samples.udp, samples.peerClockOffsetMs, receipt]).toEqual(
      Array(5).fill(null),
    );
    // Nothing is said against a direction that was not measured.
    expect(report.suitability.map(({ because }) => because.by)).not.toContain('unsteady');
    expect(report.fitness.map(({ code }) => code)).toContain('far-end-not-ours');
    expect(report.fitness.map(({ code }) => code)).not.toContain('no-receipt');
  });

  it('asks politely: a few connections, each from another place on, and says who it is', async () => {
    const { url, asked } = await serve(page(true));
    const { samples, seen } = await finished([url]);
    expect(seen).toEqual({ sameMachine: true, ipVersion: 4, peerLinkBps: null });
    expect(finalBytes(samples.download)).toBeGreaterThan(1e6);
    expect(new Set(asked.map(({ headers }) => headers['user-agent']))).toEqual(new Set([MANNERS.userAgent]));
    expect(asked[0]!.headers.range).toBe('bytes=0-0');
    expect(new Set(asked.slice(1, 3).map(({ headers }) => headers.range))).toEqual(
      new Set(['bytes=0-', `bytes=${Math.floor(SIZE * 0.618)}-`]),
    );
    // Five handshakes a second, and nothing sent over them.
    const idle = samples.phases[0]!;
    const probes = samples.probes.sentMs.filter((atMs) => atMs >= idle.fromMs && atMs < idle.toMs);
    expect(probes.length).toBeLessThanOrEqual(4);
    expect(samples.probes.rttMs.filter((ms) => ms !== null).length).toBeGreaterThan(3);
  });

  it('loads several pages side by side, also where only the whole can be had', async () => {
    const [one, other] = [await serve(page(true)), await serve(page(false))];
    const { samples } = await finished([one.url, other.url]);
    expect(samples.download!.bytes.map((stream) => stream.at(-1)! > 0)).toEqual([true, true]);
    expect(other.asked.slice(1).map(({ headers }) => headers.range)).toEqual(other.asked.slice(1).map(() => undefined));
  });

  it('loads no more than was allowed', async () => {
    const { url } = await serve(page(true));
    const { samples } = await finished([url], downloadOnly(SHORT, 15e6), 15e6);
    const bytes = finalBytes(samples.download)!;
    expect(bytes).toBeGreaterThan(10e6);
    // What was on its way when it was enough is still counted.
    expect(bytes).toBeLessThan(17e6);
  });

  it('follows where the server points to', async () => {
    const target = await serve(page(true));
    const { url } = await serve((_, answer) => answer.writeHead(302, { Location: target.url }).end());
    await finished([url]);
    expect(target.asked.length).toBeGreaterThan(1);
  });

  it('speaks HTTP/2 where the server does', async () => {
    const { cert, private: key } = await generate([{ name: 'commonName', value: 'localhost' }], {
      extensions: [{ name: 'subjectAltName', altNames: [{ type: 2, value: 'localhost' }] }],
    });
    const versions = new Set<string>();
    const server: Http2SecureServer = createSecureServer({ cert, key, allowHTTP1: true }, (request, response) => {
      versions.add(request.httpVersion);
      page(true)(request, response as unknown as ServerResponse);
    }).listen(0);
    open.push(server);
    await once(server, 'listening');
    const url = `https://localhost:${(server.address() as AddressInfo).port}/large.bin`;
    const { samples } = await finished([url], SHORT, 1e9, { ...MANNERS, ca: cert });
    expect(versions).toEqual(new Set(['2.0']));
    expect(finalBytes(samples.download)).toBeGreaterThan(1e6);
    // A certificate that nobody vouches for is no far end.
    expect(await run([url])).toMatchObject({ kind: 'failed', reason: 'web-unreachable' });
  });
});

describe('a web server that does not do', () => {
  it.each([
    ['asks for a passphrase', (_: Asked, answer: ServerResponse) => answer.writeHead(401).end(), 'status 401'],
    [
      'points in circles',
      (_: Asked, answer: ServerResponse) => answer.writeHead(301, { Location: '/x' }).end(),
      'redirects',
    ],
    [
      'points to what is no address',
      (_: Asked, answer: ServerResponse) => answer.writeHead(301, { Location: 'http://[' }).end(),
      'points to http://[',
    ],
    [
      'points elsewhere than to the web',
      (_: Asked, answer: ServerResponse) => answer.writeHead(301, { Location: 'file:///etc/passwd' }).end(),
      'file:',
    ],
  ])('%s: it is said what it answered', async (_, answer, said) => {
    const { url } = await serve(answer);
    const news = await run([url]);
    expect(news).toMatchObject({ kind: 'failed', reason: 'web-refused' });
    expect(news.samples.client!.troubles).toMatchObject([
      { code: 'download-refused', detail: expect.stringContaining(said) },
    ]);
  });

  it('has only a small page: it is said, and not asked for again and again', async () => {
    const small = await serve((_, answer) =>
      answer.writeHead(200, { 'Content-Length': 5000 }).end(CONTENT.subarray(0, 5000)),
    );
    expect(await run([small.url])).toMatchObject({ kind: 'failed', reason: 'web-refused' });
    expect(small.asked).toHaveLength(1);
    // One that does not say how long it is shows it when it has ended.
    const silent = await serve((_, answer) => answer.writeHead(200).end(CONTENT.subarray(0, 5000)));
    const news = await run([silent.url], { ...SHORT, mostDirectionMs: 1500 });
    expect(silent.asked).toHaveLength(3);
    expect(news.samples.client!.troubles).toMatchObject([{ code: 'download-refused', detail: 'only 5000 bytes long' }]);
  });

  it('is not there, or its name is not', async () => {
    const { url, server } = await serve(page(true));
    server.close();
    await once(server, 'close');
    for (const gone of [url, 'http://no-such-name.invalid/'])
      expect(await run([gone])).toMatchObject({ kind: 'failed', reason: 'web-unreachable' });
  });

  it('has had enough: it is left alone', async () => {
    const whole = page(true);
    const { url, asked } = await serve((request, answer) =>
      asked.length > 1 ? void answer.writeHead(429).end() : whole(request, answer),
    );
    const news = await run([url], { ...SHORT, silenceMs: 1500 });
    expect(news).toMatchObject({ kind: 'failed', reason: 'no-download' });
    // The look before, and each connection once.
    expect(asked).toHaveLength(3);
    expect(news.samples.client!.troubles).toMatchObject([{ code: 'download-refused', detail: 'status 429', count: 2 }]);
  });

  it('breaks off in the middle: what came counts, and the rest is asked for again', async () => {
    const { url } = await serve(({ headers }, answer) => {
      answer.writeHead(206, { 'Content-Range': `bytes 0-9/${SIZE}`, 'Content-Length': SIZE });
      answer.write(CONTENT.subarray(0, headers.range === 'bytes=0-0' ? 1 : 200_000), () => answer.destroy());
    });
    const { samples } = await finished([url], { ...SHORT, mostDirectionMs: 1600 });
    expect(finalBytes(samples.download)).toBeGreaterThan(400_000);
    expect(samples.client!.troubles).toMatchObject([{ code: 'download-broke' }]);
  });
});

it('tells nothing of a direction that was not measured', () => {
  const { up, planAnswer } = reportOf(NO_SAMPLES, CONDITIONS);
  expect([up.rate, up.verdict, planAnswer]).toEqual([null, { word: 'no verdict', why: 'not-measured' }, null]);
});
