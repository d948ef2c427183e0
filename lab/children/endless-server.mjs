/** Sends without an end to whoever connects. `node endless-server.mjs PORT` */
import { createServer } from 'node:net';

const PART = Buffer.alloc(64 * 1024);
createServer((socket) => {
  socket.on('error', () => undefined);
  const send = () => {
    while (!socket.destroyed && socket.write(PART));
  };
  socket.on('drain', send);
  send();
}).listen(Number(process.argv[2]), () => process.stdout.write('listening\n'));
process.stdin.on('end', () => process.exit(0)).resume();
