import { reportOf } from '@/core';
import { PACED_MBPS } from '../clients/agents-client';
import { LAB_CONDITIONS } from '../measure-run';
import type { LabLineConfig } from '../net/lab-line';
import { addRows, HEADS, NOTE } from './accuracy';
import { lostPackets } from './behaviour';
import { onBench, symmetric, watchedRuns } from './lab-cell';
import { medianOf, Table } from './table';

const LINES: readonly (readonly [string, Partial<LabLineConfig>])[] = [
  ['50/10, 20 ms', { down: { rateMbps: 50, queueMs: 50 }, up: { rateMbps: 10, queueMs: 50 }, baseMs: 20 }],
  ['210/35, 12 ms', { down: { rateMbps: 210, queueMs: 50 }, up: { rateMbps: 35, queueMs: 50 }, baseMs: 12 }],
  ['640/640', symmetric(640, 50)],
];
const LOSSES = [0, 0.01, 0.05];

/** From one agent to another, asked for by the API: rates, delay and paced UDP, held against the kernel. */
export async function betweenTable(runs: number): Promise<void> {
  const table = new Table('Between two agents', NOTE, HEADS);
  for (const [name, config] of LINES) {
    const done = await watchedRuns(config, 'Agents', runs);
    addRows(table, name, 'Agents', done.line, done.runs);
  }
  const paced = new Table(
    'Paced UDP between two agents',
    `${PACED_MBPS} Mb/s of UDP over 100/100 with 20 ms. Lost: by the runs, and by the kernel’s count of the UDP that it dropped.`,
    ['loss set', 'runs', 'sent', 'lost up: run / kernel', 'lost down: run / kernel', 'jitter up and down, ms'],
  );
  for (const lossRatio of LOSSES)
    await onBench({ ...symmetric(100, 50), baseMs: 20, lossRatio }, 'Agents', async ({ line, program, client }) => {
      const total = { runs: 0, sent: 0, up: 0, down: 0 };
      const jitter: { up: (number | null)[]; down: (number | null)[] } = { up: [], down: [] };
      const before = { up: line.dropped('up').udp, down: line.dropped('down').udp };
      for (let run = 0; run < runs; run += 1) {
        const done = await client.run(program.joinAddress, 'paced');
        const loss = done.status === 'finished' ? reportOf(done.samples, LAB_CONDITIONS).loss : null;
        if (loss === null) {
          console.error(`  no loss: ${done.status === 'finished' ? 'not measured' : done.sentence}`);
          continue;
        }
        const lost = lostPackets(loss);
        total.runs += 1;
        total.sent += loss.sent;
        total.up += lost.up ?? 0;
        total.down += lost.down ?? 0;
        jitter.up.push(loss.jitterUpMs);
        jitter.down.push(loss.jitterDownMs);
      }
      const dropped = (way: 'up' | 'down') => line.dropped(way).udp - before[way];
      paced.row(
        `${lossRatio * 100} %`,
        total.runs,
        total.sent,
        `${total.up} / ${dropped('up')}`,
        `${total.down} / ${dropped('down')}`,
        `${medianOf(jitter.up, 2)} and ${medianOf(jitter.down, 2)}`,
      );
    });
}
