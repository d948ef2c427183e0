import { EventEmitter } from 'node:events';
import type { Socket } from 'node:net';
import { knockAt } from './knock';

/** A connection of which only what is said of it comes. */
function saying(said: string | null) {
  const socket = Object.assign(new EventEmitter(), { destroyed: false, destroy: () => (socket.destroyed = true) });
  if (said !== null)
    setImmediate(() =>
      said === 'connect'
        ? socket.emit('connect')
        : socket.emit('error', Object.assign(new Error(said), { code: said })),
    );
  return socket;
}

describe('knocking at a port', () => {
  it.each([
    ['connect', 'open'],
    ['ECONNREFUSED', 'refused'],
    ['EHOSTUNREACH', 'unreachable'],
    ['ENETUNREACH', 'unreachable'],
    // The system gave up by itself.
    ['ETIMEDOUT', 'silent'],
    [null, 'silent'],
  ])('%s comes to %s, and the connection is closed', async (said, state) => {
    const socket = saying(said);
    const asked: unknown[] = [];
    const knocked = knockAt('203.0.113.9', 1194, 30, (to) => {
      asked.push(to);
      return socket as unknown as Socket;
    });
    expect(await knocked).toBe(state);
    expect(asked).toEqual([{ host: '203.0.113.9', port: 1194 }]);
    expect(socket.destroyed).toBe(true);
  });
});
