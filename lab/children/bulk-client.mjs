/**
 * Pulls or pushes as fast as it can for some seconds and prints the payload bytes and the time as JSON.
 * `bulk-client.mjs down|up URL STREAMS SECONDS`; `{stream}` in the URL is replaced by the stream's number.
 */
import { randomBytes } from 'node:crypto';
import { connect } from 'node:net';

const [way, address, streams, seconds] = process.argv.slice(2);
const chunk = randomBytes(1024 * 1024);
let bytes = 0;
const open = new Set();

function start(stream) {
  const url = new URL(address.replace('{stream}', String(stream)));
  const buffer = Buffer.allocUnsafe(1024 * 1024);
  const socket = connect({
    host: url.hostname,
    port: Number(url.port),
    noDelay: true,
    onread: { buffer, callback: (count) => ((bytes += way === 'down' ? count : 0), true) },
  });
  open.add(socket);
  socket.on('error', () => socket.destroy());
  socket.on('close', () => {
    open.delete(socket);
    if (way === 'up') bytes += socket.bytesWritten;
    if (!ending) start(stream);
  });
  const path = `${url.pathname}${url.search}`;
  if (way === 'down') return void socket.write(`GET ${path} HTTP/1.0\r\nHost: ${url.host}\r\n\r\n`);
  socket.write(`POST ${path} HTTP/1.1\r\nHost: ${url.host}\r\nContent-Length: 1000000000000\r\n\r\n`);
  const pour = () => {
    while (socket.writable && socket.write(chunk));
    socket.once('drain', () => setImmediate(pour));
  };
  pour();
}

let ending = false;
const startedMs = performance.now();
for (let stream = 0; stream < Number(streams); stream += 1) start(stream);
setTimeout(
  () => {
    ending = true;
    const ms = performance.now() - startedMs;
    // What still waits to be sent was not moved.
    for (const socket of open) {
      if (way === 'up') bytes -= socket.writableLength;
      socket.destroy();
    }
    setTimeout(() => process.stdout.write(`${JSON.stringify({ bytes, ms })}\n`), 50);
  },
  Number(seconds) * 1000,
);
