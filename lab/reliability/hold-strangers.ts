import { connect, type Socket } from 'node:net';

const OF_ONE_ADDRESS = 50;
/** They hold connections; how many a second a stranger opens is another matter. */
const AGAIN_AFTER_MS = 2000;
const HELD = [
  '',
  'GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-A: ',
  'POST /peer/v1/up?ticket=x HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900000\r\n\r\n',
  '\x16\x03\x01\x02\x00\x01\x00',
];

/**
 * Holds `count` connections that never say what they want, from as many addresses as it takes (127.0.x.y); each that is
 * closed is opened anew. Gives how many are open, how many had to be opened again, and what ends it.
 */
export function holdStrangers(port: number, count: number) {
  const open = new Map<number, Socket>();
  let [reopened, over] = [0, false];
  const hold = (index: number) => {
    if (over) return;
    const address = Math.floor(index / OF_ONE_ADDRESS);
    const localAddress = `127.0.${1 + Math.floor(address / 250)}.${1 + (address % 250)}`;
    const socket = connect({ port, host: '127.0.0.1', localAddress }, () => {
      const first = HELD[index % HELD.length]!;
      if (first !== '') socket.write(first, 'latin1');
    });
    open.set(index, socket);
    socket.on('error', () => undefined);
    socket.on('data', () => undefined);
    socket.on('close', () => {
      if (!over) {
        reopened += 1;
        setTimeout(() => hold(index), AGAIN_AFTER_MS);
      }
    });
  };
  for (let index = 0; index < count; index += 1) hold(index);
  return {
    get held() {
      return [...open.values()].filter((socket) => socket.readyState === 'open').length;
    },
    get reopened() {
      return reopened;
    },
    end() {
      over = true;
      for (const socket of open.values()) socket.destroy();
    },
  };
}
