import { decodeEcho, encodeProbe } from '@/wire';
import type { PeerSocket, ProbeEvents, Probing, SocketEvents } from './transport';

/** What knows how long a message lay on this device before it was sent. */
export interface Waits {
  /** This was just given to the socket. */
  sent(sequence: number): void;
  /** How long it lay there before it was handed on, ms, beyond what that always takes; 0: no longer, or not known. */
  waitedMs(sequence: number): number;
}

/** Probes over a WebSocket to a peer, a frame each. */
export async function probesOver<Socket extends PeerSocket>(
  connect: (events: SocketEvents) => Promise<Socket>,
  { onEcho, onClose }: ProbeEvents,
  waitsOf: (socket: Socket) => Waits | null = () => null,
): Promise<Probing> {
  let waits: Waits | null = null;
  const socket = await connect({
    onClose,
    onMessage: (data) => {
      const echo = typeof data === 'string' ? null : decodeEcho(data);
      if (echo !== null) onEcho(echo.sequence, echo.peerMs, waits?.waitedMs(echo.sequence));
    },
  });
  waits = waitsOf(socket);
  return {
    send: (sequence) => {
      socket.send(encodeProbe(sequence));
      waits?.sent(sequence);
    },
    close: () => socket.close(),
  };
}
