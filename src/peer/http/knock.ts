import { connect, type Socket } from 'node:net';
import type { KnockState } from '@/core';

const REFUSED = 'ECONNREFUSED';
/** Told by a router on the way (RFC 792, RFC 4443). */
const NO_WAY = new Set(['EHOSTUNREACH', 'ENETUNREACH', 'EACCES', 'EPERM', 'EADDRNOTAVAIL']);

/** Opens one TCP connection, says nothing on it, and closes it. `patienceMs`: nothing came back by then. */
export function knockAt(
  address: string,
  port: number,
  patienceMs: number,
  open: (to: { host: string; port: number }) => Socket = connect,
): Promise<KnockState> {
  return new Promise((resolve) => {
    const socket = open({ host: address, port });
    const end = (state: KnockState) => {
      clearTimeout(patience);
      socket.destroy();
      resolve(state);
    };
    const patience = setTimeout(() => end('silent'), patienceMs);
    socket.once('connect', () => end('open'));
    socket.once('error', ({ code = '' }: NodeJS.ErrnoException) =>
      end(code === REFUSED ? 'refused' : NO_WAY.has(code) ? 'unreachable' : 'silent'),
    );
  });
}
