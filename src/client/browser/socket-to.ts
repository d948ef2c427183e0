import type { Holding } from './handed-on';
import type { PeerSocket, SocketEvents } from '../run/transport';
import { peerUrl, type PeerAddress } from '../run/peer-address';

/** Opens a WebSocket to a peer; rejects when it does not open. */
export function socketTo(
  address: PeerAddress,
  path: string,
  { onMessage, onClose }: SocketEvents,
): Promise<PeerSocket & Holding> {
  return new Promise((resolve, reject) => {
    const socket = new WebSocket(peerUrl(address, path).replace(/^http/, 'ws'));
    socket.binaryType = 'arraybuffer';
    socket.onopen = () => resolve(socket);
    socket.onerror = () => reject(new Error('the socket did not open'));
    socket.onclose = onClose;
    socket.onmessage = ({ data }: MessageEvent<ArrayBuffer | string>) => onMessage(data);
  });
}
