import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { finalBytes, RUN_PROFILES, type RunProfile } from '@/core';
import { startTestPeer } from '@/peer/peer-for-tests';
import { StampReflector } from '@/peer';
import type { RunGrant } from '@/wire';
import { startRun, type RunNews } from '../run/run-runner';
import { openNodeTransport } from './node-transport';

/** A whole run in two seconds: too short for a figure, long enough for every phase. */
const SHORT: RunProfile = {
  ...RUN_PROFILES.standard,
  ...{ idleMs: 300, mostDirectionMs: 500, mostSettleMs: 200, openDeadlineMs: 1500, silenceMs: 400 },
  streams: { first: 2, most: 2 },
};
const wallMs = () => performance.timeOrigin + performance.now();

type Ending = Exclude<RunNews, { kind: 'progress' }>;

function runAgainst(baseUrl: string, ticket: string, profile = SHORT, pacedBps: number | null = null) {
  const grant: RunGrant = {
    ...{
      runId: 'r',
      runKey: 'k',
      ticket,
      peer: { name: 'peer', baseUrl },
      profile: 'standard',
      pacedBps,
      leastDirectionMs: 0,
      web: null,
    },
    ...{ deviceId: 'd', deviceName: 'device', yardstick: { downBps: null, upBps: null } },
  };
  let cancel = () => undefined as void;
  const ended = new Promise<Ending>((resolve) => {
    const transport = openNodeTransport(grant, { authenticated: true });
    const run = startRun(transport, profile, (news) => news.kind !== 'progress' && resolve(news), { pacedBps });
    cancel = () => run.cancel();
  });
  return { ended, cancel: () => cancel() };
}

describe('a run of the agent against a real peer', () => {
  it('counts in every phase, and hears of the peer and of UDP', async () => {
    const reflector = await StampReflector.start({ port: 0, host: '127.0.0.1', openTo: [], wallMs });
    const peer = await startTestPeer({ reflector });
    const news = await runAgainst(peer.origin, peer.ticket({ limits: { seconds: 30, bytes: 1e12, streams: 2 } })).ended;
    peer.close();
    await reflector.close();
    if (news.kind !== 'finished') throw new Error(news.kind);
    const { samples, seen } = news;
    expect(seen).toEqual({ sameMachine: true, ipVersion: 4, peerLinkBps: null });
    expect(samples.phases.map(({ phase }) => phase)).toEqual(['idle', 'download', 'settle', 'upload']);
    expect(finalBytes(samples.download)).toBeGreaterThan(1e6);
    expect(finalBytes(samples.upload)).toBeGreaterThan(1e6);
    expect(samples.probes.rttMs.filter((rtt) => rtt !== null).length).toBeGreaterThan(10);
    expect(samples.udp).toMatchObject({ kind: 'stamp-authenticated', duplicates: 0 });
    expect(samples.udp!.peerReceived).toBe(samples.udp!.sentMs.length);
    expect(samples.udp!.sentMs.every((atMs, index, all) => index === 0 || atMs >= all[index - 1]!)).toBe(true);
    expect(samples.peerLoad.length).toBeGreaterThan(0);
    expect(samples.client!.spanMs).toBeGreaterThan(1000);
  });

  it('sends UDP at the pace that was asked for', async () => {
    const reflector = await StampReflector.start({ port: 0, host: '127.0.0.1', openTo: [], wallMs });
    const peer = await startTestPeer({ reflector });
    const paced: RunProfile = { ...SHORT, steps: ['idle', 'paced'] };
    const { ended } = runAgainst(peer.origin, peer.ticket(), paced, 9.6e6);
    const news = await ended;
    peer.close();
    await reflector.close();
    if (news.kind !== 'finished') throw new Error(news.kind);
    const span = news.samples.phases.find(({ phase }) => phase === 'paced')!;
    const sent = news.samples.udp!.sentMs.filter((atMs) => atMs >= span.fromMs && atMs < span.toMs).length;
    // 9.6 Mb/s are 1000 packets of 1200 bytes a second.
    expect(sent / (span.toMs - span.fromMs)).toBeCloseTo(1, 1);
  });

  it('says at once that a paced run needs UDP where the peer answers none', async () => {
    const peer = await startTestPeer();
    const { ended } = runAgainst(peer.origin, peer.ticket(), { ...SHORT, steps: ['idle', 'paced'] }, 1e6);
    expect(await ended).toMatchObject({ kind: 'failed', reason: 'no-udp' });
    peer.close();
  });

  it('ends with the reason when the peer goes, when it is cancelled, and when the ticket is bad', async () => {
    const peer = await startTestPeer();
    const cancelled = runAgainst(peer.origin, peer.ticket());
    setTimeout(cancelled.cancel, 400);
    expect(await cancelled.ended).toMatchObject({ kind: 'failed', reason: 'cancelled' });
    expect(await runAgainst(peer.origin, 'nonsense').ended).toMatchObject({ kind: 'failed', reason: 'peer-refused' });
    const going = runAgainst(peer.origin, peer.ticket());
    setTimeout(() => peer.close(), 450);
    expect(await going.ended).toMatchObject({ kind: 'failed', reason: 'peer-gone' });
    expect(await runAgainst(peer.origin, peer.ticket()).ended).toMatchObject({
      kind: 'failed',
      reason: 'peer-unreachable',
    });
  });
});

describe('a peer that lies', () => {
  let liar: Server | null = null;
  afterEach(() => liar?.close());

  const TRUTH = {
    ...{ session: 'x'.repeat(24), sameMachine: false, ipVersion: 4, interfaceBps: 1e9 },
    limits: { seconds: 30, bytes: 1e9, streams: 2 },
    info: {
      ...{ product: 'bent-straw-peer', protocol: 1, name: 'liar', version: '1', congestionControl: 'cubic' },
      clock: { wallMs: 1.7e12, monotonicMs: 5 },
      load: { activeSessions: 1, mostSessions: 4, loadAverage1m: 0.1, cores: 2 },
      can: { download: true, upload: true, probe: true, udp: false, dataChannel: false },
    },
  };

  it.each([
    ['about what it is', { ...TRUTH, info: { ...TRUTH.info, product: 'something else' } }],
    ['with a rate below 0', { ...TRUTH, interfaceBps: -1e9 }],
    ['with text for a number', { ...TRUTH, limits: { ...TRUTH.limits, streams: 'many' } }],
    ['with half a stream', { ...TRUTH, limits: { ...TRUTH.limits, streams: 0.5 } }],
    ['with an endless name', { ...TRUTH, info: { ...TRUTH.info, name: 'x'.repeat(100_000) } }],
    ['with nothing at all', null],
  ])('%s is refused in a bounded time', async (_, answer) => {
    liar = createServer((_request, response) => {
      response.writeHead(201, { 'Content-Type': 'application/json' });
      response.end(JSON.stringify(answer));
    }).listen(0, '127.0.0.1');
    await once(liar, 'listening');
    const { ended } = runAgainst(`http://127.0.0.1:${(liar.address() as AddressInfo).port}`, 'ticket');
    expect(await ended).toMatchObject({ kind: 'failed', reason: 'peer-refused', seen: null });
  });

  it('by never answering is given up', async () => {
    liar = createServer(() => undefined).listen(0, '127.0.0.1');
    await once(liar, 'listening');
    const { ended } = runAgainst(`http://127.0.0.1:${(liar.address() as AddressInfo).port}`, 'ticket');
    expect(await ended).toMatchObject({ kind: 'failed', reason: 'peer-unreachable' });
    liar.closeAllConnections();
  });
});
