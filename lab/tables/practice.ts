import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { reportOf, type RunReport } from '@/core';
import { ended, startIn } from '../net/command';
import { LAB_CONDITIONS } from '../measure-run';
import { onBench } from './lab-cell';
import { medianOf, Table } from './table';

const PRACTICE_PORT = 4871;
const BASE_MS = 20;

interface Figures {
  readonly downMbps: number;
  readonly upMbps: number;
  readonly queueMs: number;
}

async function reportsThrough(
  kind: 'kernel' | 'practice',
  { downMbps, upMbps, queueMs }: Figures,
  runs: number,
): Promise<RunReport[]> {
  // The kernel counts frames, a practice line payload.
  const frames = (mbps: number) => (mbps * 1514) / 1448;
  const shaped = {
    ...{ down: { rateMbps: frames(downMbps), queueMs }, up: { rateMbps: frames(upMbps), queueMs }, baseMs: BASE_MS },
  };
  return onBench(kind === 'kernel' ? shaped : {}, 'Node', async ({ line, program, client }) => {
    const stops: (() => Promise<void>)[] = [];
    let address = program.joinAddress;
    if (kind === 'practice') {
      const file = join(mkdtempSync(join(tmpdir(), 'bent-straw-lab-')), 'lines.json');
      const direction = (rateMbps: number) => ({ rateMbps, queueMs });
      const config = {
        ...{ name: 'lab', listenPort: PRACTICE_PORT, to: { host: '127.0.0.1', port: 4870 }, roundTripMs: BASE_MS },
        ...{ down: direction(downMbps), up: direction(upMbps) },
      };
      writeFileSync(file, JSON.stringify({ lines: [config] }));
      const child = startIn(line.netns('peer'), process.execPath, 'dist/practice-main.js', file);
      stops.push(() => {
        child.kill('SIGTERM');
        return ended(child);
      });
      await new Promise((resolve) => setTimeout(resolve, 800));
      address = address.replace(':4870', `:${PRACTICE_PORT}`);
    }
    const reports: RunReport[] = [];
    for (let run = 0; run < runs; run += 1) {
      const done = await client.run(address, 'standard');
      if (done.status === 'finished') reports.push(reportOf(done.samples, LAB_CONDITIONS));
      else console.error(`  no result: ${done.sentence}`);
    }
    for (const stop of stops) await stop();
    return reports;
  });
}

/** Practice lines against the kernel's lines of the same figures, with the same agent. */
export async function practiceTable(runs: number): Promise<void> {
  const table = new Table(
    'Practice lines against the kernel’s',
    `The same figures, base delay ${BASE_MS} ms, by a practice line and by the kernel (cubic). Wanted: 3 % in rate, 10 % in added delay.`,
    [
      'line, Mb/s',
      'queue, ms',
      'way',
      'kernel, Mb/s',
      'practice, Mb/s',
      'ratio',
      'kernel adds, ms',
      'practice adds, ms',
      'ratio',
    ],
  );
  for (const figures of [
    { downMbps: 500, upMbps: 100, queueMs: 100 },
    { downMbps: 50, upMbps: 10, queueMs: 200 },
  ]) {
    const [kernel, practice] = [
      await reportsThrough('kernel', figures, runs),
      await reportsThrough('practice', figures, runs),
    ];
    for (const way of ['down', 'up'] as const) {
      const rate = (reports: RunReport[]) =>
        medianOf(reports.map((report) => (report[way].rate === null ? null : report[way].rate.steadyBps / 1e6)));
      const added = (reports: RunReport[]) => medianOf(reports.map((report) => report[way].addedMs));
      const ratio = (a: string, b: string) => (Number(b) / Number(a)).toFixed(3);
      table.row(
        ...[
          `${figures.downMbps}/${figures.upMbps}`,
          figures.queueMs,
          way,
          rate(kernel),
          rate(practice),
          ratio(rate(kernel), rate(practice)),
        ],
        ...[added(kernel), added(practice), ratio(added(kernel), added(practice))],
      );
    }
  }
}
