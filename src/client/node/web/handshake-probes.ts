import { connect, type Socket } from 'node:net';
import type { Probing, ProbeEvents } from '../../run/transport';
import type { WebPlace } from './web-place';

/** A handshake that has not been answered by then is given up, ms. */
const PATIENCE_MS = 10_000;

/**
 * The delay to a server that echoes nothing: how long its kernel takes to answer the handshake of a new TCP connection, which
 * is one round trip (RFC 9293 §3.5). Nothing is sent over it.
 */
export function handshakeProbes(
  { address, port }: Pick<WebPlace, 'address' | 'port'>,
  { onEcho }: ProbeEvents,
): Probing {
  const open = new Set<Socket>();
  return {
    send: (sequence) => {
      const socket = connect({ host: address, port });
      open.add(socket);
      socket.setTimeout(PATIENCE_MS, () => socket.destroy());
      socket.once('connect', () => {
        onEcho(sequence, null);
        socket.destroy();
      });
      socket.once('error', () => socket.destroy());
      socket.once('close', () => open.delete(socket));
    },
    close: () => open.forEach((socket) => socket.destroy()),
  };
}
