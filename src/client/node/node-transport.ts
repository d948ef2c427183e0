import { WebSocket } from 'ws';
import { PEER_PATHS, type RunGrant } from '@/wire';
import { probesOver } from '../run/probe-socket';
import { openSession, type AskForSession } from '../run/open-session';
import { clockStepMs } from '../run/clock-step';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import { errorWords, TroubleReports } from '../run/trouble-reports';
import type { PeerSocket, SocketEvents, Transport } from '../run/transport';
import { startDownload } from './download-sockets';
import { httpRequest } from './http-request';
import { machineTraffic } from './machine-traffic';
import { otherTraffic } from './other-traffic';
import { powerSaving } from './power-profile';
import { startStampSender } from './stamp-sender';
import { startUpload } from './upload-sockets';

export interface NodeTransportOptions {
  /** Whether UDP probes are authenticated (RFC 8762 §4.4). */
  readonly authenticated: boolean;
}

/** A ticket's bytes serve all streams of both directions. */
const REQUEST_SHARE = 0.05;
const LEAST_REQUEST_BYTES = 64 * 1024;

const askByNode: AskForSession = (url, signal) => httpRequest(url, { method: 'POST', signal });

function connect(address: PeerAddress, path: string, { onMessage, onClose }: SocketEvents): Promise<PeerSocket> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(peerUrl(address, path).replace(/^http/, 'ws'), { perMessageDeflate: false });
    socket.binaryType = 'arraybuffer';
    socket.on('open', () => resolve({ send: (data) => socket.send(data), close: () => socket.close() }));
    socket.on('error', () => reject(new Error('the socket did not open')));
    socket.on('close', onClose);
    socket.on('message', (data, isBinary) =>
      onMessage(isBinary ? (data as ArrayBuffer) : Buffer.from(data as ArrayBuffer).toString()),
    );
  });
}

/** Measures with sockets. The same orchestrator as in a browser drives it. */
export function openNodeTransport(
  grant: Pick<RunGrant, 'peer' | 'ticket'>,
  { authenticated }: NodeTransportOptions,
): Transport {
  let address: PeerAddress | null = null;
  let canUdp = false;
  let requestBytes = LEAST_REQUEST_BYTES;
  let before: { readonly traffic: ReturnType<typeof machineTraffic>; readonly atMs: number } | null = null;
  const moved = { downBytes: 0, upBytes: 0 };
  const loadBegins = () => (before ??= { traffic: machineTraffic(), atMs: performance.now() });
  const troubles = new TroubleReports();
  const stepMs = clockStepMs(() => performance.now());
  const wallMs = () => performance.timeOrigin + performance.now();
  return {
    troubles,
    nowMs: () => performance.now(),
    wallMs: () => Date.now(),
    open: async (signal) => {
      const result = await openSession(askByNode, grant.peer.baseUrl, grant.ticket, signal);
      if (!result.ok) return result;
      address = { baseUrl: grant.peer.baseUrl, session: result.opened.session };
      canUdp = result.opened.info.can.udp;
      requestBytes = Math.max(LEAST_REQUEST_BYTES, Math.floor(result.opened.limits.bytes * REQUEST_SHARE));
      return result;
    },
    openControl: (events) => connect(address!, PEER_PATHS.control, events),
    openProbes: (events) => probesOver((socket) => connect(address!, PEER_PATHS.probe, socket), events),
    startDownload: (streams, onCounted) => {
      loadBegins();
      const already = moved.downBytes;
      const counted = (atMs: number, bytes: readonly number[]) => {
        moved.downBytes = already + bytes.reduce((sum, count) => sum + count, 0);
        onCounted(atMs, bytes);
      };
      return startDownload(address!, streams, counted, troubles);
    },
    startUpload: (streams) => {
      loadBegins();
      return startUpload(address!, streams, requestBytes, (bytes) => (moved.upBytes += bytes), troubles);
    },
    startUdp: async () => {
      if (!canUdp) return null;
      const sender = { nowMs: () => performance.now(), wallMs, authenticated, troubles };
      return startStampSender(address!, sender).catch((error: unknown) => {
        troubles.report('udp-refused', errorWords(error));
        return null;
      });
    },
    sightings: () => ({
      selfReadBps: null,
      otherTraffic: otherTraffic(before, moved, machineTraffic(), performance.now()),
      powerSaving: powerSaving(),
      clockStepMs: stepMs,
      reader: 'socket',
    }),
  };
}
