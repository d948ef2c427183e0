import { LONG_PATH_MS } from '@/core';
import { PEER_PATHS, type RunGrant } from '@/wire';
import type { Load, SocketEvents, Transport } from '../run/transport';
import { probesOver } from '../run/probe-socket';
import { openSession, type AskForSession } from '../run/open-session';
import type { PeerAddress } from '../run/peer-address';
import { clockStepMs } from '../run/clock-step';
import { errorWords, TroubleReports } from '../run/trouble-reports';
import type { ChannelLink } from './channel-link';
import type { BulkOrder, BulkReport } from './bulk-messages';
import { servePull } from './bulk-pull';
import { eventLoop, watchHandedOn, type Holding } from './handed-on';
import { openConnections } from './open-connections';
import { bestReader } from './read-body';
import { selfReadBps } from './self-read';
import { socketTo } from './socket-to';
import { startUpload } from './upload-streams';

const askByFetch: AskForSession = (url, signal) => fetch(url, { method: 'POST', signal, cache: 'no-store' });

/** A browser opens at most six connections to one host, and the page needs one: five for streams. */
export const MOST_BROWSER_STREAMS = 5;

/**
 * Downloads in a worker of their own, so that taking the bytes in does not hold up the probes; in this one where the
 * engine starts none.
 */
function startDownload(
  address: PeerAddress,
  reader: BulkOrder['reader'],
  streams: number,
  onCounted: (nowMs: number, bytes: readonly number[]) => void,
  troubles: TroubleReports,
): Load {
  const hear = (report: BulkReport) => {
    if (report.kind === 'trouble') troubles.report(report.code, report.detail);
    // The two workers have clocks with different origins.
    else onCounted(report.timeOriginMs + report.atMs - performance.timeOrigin, report.bytes);
  };
  const atMost = (wanted: number): BulkOrder => ({ address, reader, streams: Math.min(wanted, MOST_BROWSER_STREAMS) });
  let wanted = streams;
  let own: ReturnType<typeof servePull> | null = null;
  let worker: Worker | null = null;
  const pullHere = (why: string) => {
    troubles.report('worker-shared', why);
    worker?.terminate();
    worker = null;
    own = servePull(hear);
    own.take(atMost(wanted));
  };
  try {
    worker = new Worker(new URL('./bulk-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<BulkReport>) => hear(data);
    worker.onerror = (event) => {
      event.preventDefault();
      pullHere(event.message);
    };
    worker.postMessage(atMost(wanted));
  } catch (error) {
    pullHere(errorWords(error));
  }
  return {
    grow: (more) => {
      wanted = more;
      if (own === null) worker?.postMessage(atMost(more));
      else own.take(atMost(more));
    },
    stop: () => {
      worker?.terminate();
      own?.stop();
    },
  };
}

/** Measures with fetch, XMLHttpRequest and WebSocket. Lives in a worker, apart from the page's own work. */
export async function openBrowserTransport(
  grant: RunGrant,
  powerSaving: string | null,
  channel: ChannelLink,
): Promise<Transport> {
  let address: PeerAddress | null = null;
  let canChannel = false;
  const troubles = new TroubleReports();
  const reader = bestReader();
  // Of the engines only WebKit has none better, and only that sends all from one other process.
  const waitsOf = (socket: Holding) =>
    reader === 'plain' ? watchHandedOn(socket, { nowMs: () => performance.now(), soon: eventLoop() }) : null;
  const stepMs = clockStepMs(() => performance.now());
  const selfRead = await selfReadBps(reader).catch((error: unknown) => {
    troubles.report('self-read-failed', errorWords(error));
    return null;
  });
  return {
    troubles,
    nowMs: () => performance.now(),
    wallMs: () => Date.now(),
    open: async (signal) => {
      const askedMs = performance.now();
      const result = await openSession(askByFetch, grant.peer.baseUrl, grant.ticket, signal);
      if (!result.ok) return result;
      address = { baseUrl: grant.peer.baseUrl, session: result.opened.session };
      canChannel = result.opened.info.can.dataChannel;
      // That took a round trip at least.
      if (performance.now() - askedMs >= LONG_PATH_MS) void openConnections(address, MOST_BROWSER_STREAMS);
      return result;
    },
    openControl: (events) => socketTo(address!, PEER_PATHS.control, events),
    openProbes: (events) =>
      probesOver((socket: SocketEvents) => socketTo(address!, PEER_PATHS.probe, socket), events, waitsOf),
    startDownload: (streams, onCounted) => startDownload(address!, reader, streams, onCounted, troubles),
    startUpload: (streams, idleRttMs) => startUpload(address!, streams, MOST_BROWSER_STREAMS, idleRttMs, troubles),
    startUdp: () => (canChannel ? channel.open(address!, troubles) : Promise.resolve(null)),
    sightings: () => ({ selfReadBps: selfRead, otherTraffic: null, powerSaving, clockStepMs: stepMs, reader }),
  };
}
