import { decodeEcho, encodeProbe } from '@/wire';
import type { PeerSocket, ProbeEvents, Probing, SocketEvents } from './transport';

/** Probes over a WebSocket to a peer, a frame each. */
export async function probesOver(
  connect: (events: SocketEvents) => Promise<PeerSocket>,
  { onEcho, onClose }: ProbeEvents,
): Promise<Probing> {
  const socket = await connect({
    onClose,
    onMessage: (data) => {
      const echo = typeof data === 'string' ? null : decodeEcho(data);
      if (echo !== null) onEcho(echo.sequence, echo.peerMs);
    },
  });
  return { send: (sequence) => socket.send(encodeProbe(sequence)), close: () => socket.close() };
}
