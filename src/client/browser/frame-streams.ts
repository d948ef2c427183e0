import { PEER_PATHS, STREAM_FRAME_BYTES } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { Load } from '../run/transport';
import type { TroubleReports } from '../run/trouble-reports';

/**
 * Streams over WebSockets, for long paths: a browser opens five connections at most for requests, some of them warm from
 * the page, and there the few cold ones never catch up. WebSockets are as many as are wanted, and all begin alike.
 */
const RETRY_MS = 200;
/** What waits in the browser to be sent on each, bytes, and how often that is looked after, ms. */
const BUFFERED_BYTES = 1024 * 1024;
const FILL_MS = 20;

interface Frames {
  /** Called for each socket once it is open; returns what ends its work. */
  readonly serve: (socket: WebSocket, stream: number) => () => void;
  readonly onBroken: () => void;
}

/** Keeps so many sockets open, each again when it broke. */
function keepOpen(peer: PeerAddress, way: 'down' | 'up', { serve, onBroken }: Frames): Load {
  const open = new Set<WebSocket>();
  let [streams, stopped] = [0, false];
  const openOne = (stream: number) => {
    if (stopped) return;
    const url = `${peerUrl(peer, PEER_PATHS.stream, stream).replace(/^http/, 'ws')}&way=${way}`;
    const socket = new WebSocket(url);
    socket.binaryType = 'arraybuffer';
    open.add(socket);
    let end = () => undefined as void;
    socket.onopen = () => (end = serve(socket, stream));
    socket.onclose = () => {
      end();
      open.delete(socket);
      if (stopped) return;
      onBroken();
      setTimeout(() => openOne(stream), RETRY_MS);
    };
  };
  return {
    grow: (wanted) => {
      for (; streams < wanted; streams += 1) openOne(streams);
    },
    stop: () => {
      stopped = true;
      for (const socket of open) socket.close();
    },
  };
}

/** Downloads on several WebSockets at once, counting what arrives: `bytes` [stream]. */
export function startFrameDownload(
  peer: PeerAddress,
  report: (code: 'download-broke', detail: string) => void,
): Load & { readonly bytes: readonly number[] } {
  const bytes: number[] = [];
  const load = keepOpen(peer, 'down', {
    serve: (socket, stream) => {
      socket.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => (bytes[stream]! += data.byteLength);
      return () => undefined;
    },
    onBroken: () => report('download-broke', 'the socket of a stream closed'),
  });
  return {
    bytes,
    stop: () => load.stop(),
    grow: (streams) => {
      while (bytes.length < streams) bytes.push(0);
      load.grow(streams);
    },
  };
}

/** Uploads on several WebSockets at once. It counts nothing: the peer does, and tells. */
export function startFrameUpload(peer: PeerAddress, streams: number, troubles: TroubleReports): Load {
  const frame = crypto.getRandomValues(new Uint8Array(STREAM_FRAME_BYTES));
  const load = keepOpen(peer, 'up', {
    serve: (socket) => {
      const fill = () => {
        while (socket.readyState === WebSocket.OPEN && socket.bufferedAmount < BUFFERED_BYTES) socket.send(frame);
      };
      fill();
      const filling = setInterval(fill, FILL_MS);
      return () => clearInterval(filling);
    },
    onBroken: () => troubles.report('upload-broke'),
  });
  load.grow(streams);
  return load;
}
