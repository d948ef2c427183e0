import type { RunGrant } from '@/wire';
import type { Load, PeerSocket, SocketEvents, Transport } from '../run/transport';
import { openSession } from '../run/open-session';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { ChannelLink } from './channel-link';
import type { BulkOrder, BulkReport } from './bulk-messages';
import { selfReadBps } from './self-read';
import { startUpload } from './upload-streams';

/** A browser opens at most six connections to one host, and the page needs one: five for streams. */
export const MOST_BROWSER_STREAMS = 5;

function connect(address: PeerAddress, path: string, { onMessage, onClose }: SocketEvents): Promise<PeerSocket> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(peerUrl(address, path).replace(/^http/, 'ws'));
    socket.binaryType = 'arraybuffer';
    socket.onopen = () => resolve(socket);
    socket.onerror = () => reject(new Error('the socket did not open'));
    socket.onclose = onClose;
    socket.onmessage = ({ data }: MessageEvent<ArrayBuffer | string>) => onMessage(data);
  });
}

/** Downloads in a worker of their own, so that taking the bytes in does not hold up the probes. */
function startDownload(
  address: PeerAddress,
  streams: number,
  onCounted: (nowMs: number, bytes: readonly number[]) => void,
): Load {
  const worker = new Worker(new URL('./bulk-worker.ts', import.meta.url), { type: 'module' });
  const order = (message: BulkOrder) => worker.postMessage(message);
  worker.onmessage = ({ data }: MessageEvent<BulkReport>) =>
    // The two workers have clocks with different origins.
    onCounted(data.timeOriginMs + data.atMs - performance.timeOrigin, data.bytes);
  const atMost = (wanted: number) => Math.min(wanted, MOST_BROWSER_STREAMS);
  order({ address, streams: atMost(streams) });
  return {
    grow: (wanted) => order({ address, streams: atMost(wanted) }),
    stop: () => worker.terminate(),
  };
}

/** Measures with fetch, XMLHttpRequest and WebSocket. Lives in a worker, apart from the page's own work. */
export async function openBrowserTransport(
  grant: RunGrant,
  powerSaving: string | null,
  channel: ChannelLink,
): Promise<Transport> {
  let address: PeerAddress | null = null;
  const selfRead = await selfReadBps();
  return {
    nowMs: () => performance.now(),
    wallMs: () => Date.now(),
    open: async (signal) => {
      const result = await openSession(grant.peer.baseUrl, grant.ticket, signal);
      if (result.ok) address = { baseUrl: grant.peer.baseUrl, session: result.opened.session };
      return result;
    },
    connect: (path, events) => connect(address!, path, events),
    startDownload: (streams, onCounted) => startDownload(address!, streams, onCounted),
    startUpload: (streams) => startUpload(address!, streams, MOST_BROWSER_STREAMS),
    startUdp: ({ info }) => (info.can.dataChannel ? channel.open(address!) : Promise.resolve(null)),
    sightings: () => ({ selfReadBps: selfRead, otherTraffic: null, powerSaving }),
  };
}
