/**
 * Runs inside a network namespace: reads the kernel's counters of one interface every 10 ms until its standard input
 * ends, then prints them as one JSON line. `watch-kernel.mjs DEVICE`
 * Columns: wall ms, received bytes, received packets.
 */
import { readFileSync } from 'node:fs';

const device = process.argv[2];
const samples = [];
const timer = setInterval(() => {
  const line = readFileSync('/proc/self/net/dev', 'utf8')
    .split('\n')
    .find((text) => text.trim().startsWith(`${device}:`));
  // The table may change while it is read in pieces: the next look finds it whole.
  if (line === undefined) return;
  const wallMs = performance.timeOrigin + performance.now();
  const [bytes, packets] = line.split(':')[1].trim().split(/\s+/).map(Number);
  samples.push([wallMs, bytes, packets]);
}, 10);
process.stdout.write('ready\n');
process.stdin.resume();
process.stdin.on('end', () => {
  clearInterval(timer);
  process.stdout.write(`${JSON.stringify(samples)}\n`, () => process.exit(0));
});
