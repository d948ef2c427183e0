import { readFileSync } from 'node:fs';
import { median } from '@/core';
import { endInOrder, numberArgument } from '../end-together';
import { isInstalled } from '../net/command';
import { chromiumClient, rawClient, type BulkClient } from './bulk-clients';
import { startNginx, startPeer, type ServerUnderTest } from './server-under-test';

/**
 * The peer against nginx with the same client on this machine, turn by turn: rates and processor time as ratios.
 * `npm run bench -- ROUNDS SECONDS`.
 */
const ROUNDS = numberArgument(process.argv[2], 5, 'The number of rounds');
const SECONDS = numberArgument(process.argv[3], 3, 'The seconds of a turn');
const TICKS_PER_SECOND = 100;
const CLIENTS = 50;
const WANTED = { down: { rate: 0.95, cpu: 1.5 }, up: { rate: 0.95, cpu: 1.8 } } as const;

interface Turn {
  readonly gbps: number;
  /** Processor seconds for each gigabit. */
  readonly cpuPerGigabit: number;
}

function cpuSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  return (Number(fields[11]) + Number(fields[12])) / TICKS_PER_SECOND;
}

function memoryMb(pid: number): number {
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
}

async function turn(server: ServerUnderTest, client: BulkClient, way: 'down' | 'up'): Promise<Turn> {
  const before = cpuSeconds(server.pid);
  const { bytes, ms } = await client.move(server, way, SECONDS);
  const gigabits = (bytes * 8) / 1e9;
  return { gbps: (gigabits * 1000) / ms, cpuPerGigabit: (cpuSeconds(server.pid) - before) / gigabits };
}

endInOrder();
if (!isInstalled('nginx')) {
  console.error('nginx is not installed. Install Debian’s package nginx-light, then start again.');
  process.exit(69);
}
const copying = await startNginx(4901, false);
const sending = await startNginx(4903, true);
const peer = await startPeer(4902);
const chromium = await chromiumClient();
try {
  console.log(`${new Date().toISOString().slice(0, 10)}, Node ${process.versions.node}, median of ${ROUNDS} rounds\n`);
  console.log('| client | way | against | its Gb/s | peer Gb/s | rate ratio | wanted | CPU ratio per Gb | wanted |');
  console.log('|---|---|---|---|---|---|---|---|---|');
  const duels = [
    { way: 'down', nginx: copying },
    { way: 'down', nginx: sending },
    { way: 'up', nginx: copying },
  ] as const;
  for (const client of [chromium, rawClient])
    for (const { way, nginx } of duels) {
      const rounds: { nginx: Turn; peer: Turn }[] = [];
      for (let round = 0; round < ROUNDS; round += 1)
        rounds.push({ nginx: await turn(nginx, client, way), peer: await turn(peer, client, way) });
      const of = (pick: (round: (typeof rounds)[number]) => number) => median(rounds.map(pick))!.toFixed(2);
      console.log(
        `| ${client.name} | ${way} | ${nginx.name} | ${of((r) => r.nginx.gbps)} | ${of((r) => r.peer.gbps)} | ` +
          `${of((r) => r.peer.gbps / r.nginx.gbps)} | ≥ ${WANTED[way].rate} | ` +
          `${of((r) => r.peer.cpuPerGigabit / r.nginx.cpuPerGigabit)} | ≤ ${WANTED[way].cpu} |`,
      );
    }
  for (let client = 0; client < CLIENTS; client += 1) await peer.openSession();
  await turn(peer, rawClient, 'down');
  await turn(peer, rawClient, 'up');
  console.log(
    `\nMemory of the peer with ${CLIENTS} clients connected: ${memoryMb(peer.pid).toFixed(0)} MB (wanted: under 150)`,
  );
} finally {
  await chromium.close();
  await peer.stop();
  await copying.stop();
  await sending.stop();
}
