import { browserClient } from './clients/browser-client';
import { nodeClient } from './clients/node-client';
import { truthOf, watchedRun } from './measure-run';
import { carriedBps, LabLine, PLAIN_LINE, removeLeftNamespaces } from './net/lab-line';
import { startLabProgram } from './net/lab-program';

const [which, profile, rate, queue, base, runs, congestion] = process.argv.slice(2);
const mbps = rate === '0' ? null : Number(rate);
removeLeftNamespaces();
const direction = { rateMbps: mbps, queueMs: Number(queue) };
const line = new LabLine({
  ...PLAIN_LINE,
  down: direction,
  up: direction,
  baseMs: Number(base),
  congestion: (congestion ?? 'cubic') as 'cubic',
});
await line.open();
const program = await startLabProgram(line);
const client = which === 'node' ? nodeClient(line.netns('client')) : await browserClient(line.netns('client'));
try {
  for (let k = 0; k < Number(runs ?? 1); k += 1) {
    const run = await watchedRun(line, program, client, (profile ?? 'standard') as 'standard');
    const carried = carriedBps(direction, 1500);
    const row = (['down', 'up'] as const).map((way) => {
      const d = run.report[way];
      const t = truthOf(run, way);
      return {
        way,
        mbps: (d.rate?.steadyBps ?? 0) / 1e6,
        err: carried && d.rate ? ((d.rate.steadyBps / carried - 1) * 100).toFixed(2) + '%' : '',
        meanErr: carried && d.rate ? ((d.rate.meanBps / carried - 1) * 100).toFixed(2) + '%' : '',
        counter: ((t?.counterError ?? 9) * 100).toFixed(3) + '%',
        added: d.addedMs?.toFixed(1),
        ping: t?.pingAddedMs?.toFixed(1),
        settled: d.rate?.settled,
        streams: d.rate?.streams,
        s: d.rate ? ((d.rate.countedToMs - d.rate.startedMs) / 1000).toFixed(1) : '',
        steadiness: d.rate?.steadiness.toFixed(3),
      };
    });
    console.table(row);
    console.log(
      'idle',
      run.report.idleDelay?.medianMs.toFixed(2),
      'took',
      (run.tookMs / 1000).toFixed(1),
      'loss',
      JSON.stringify(run.report.loss),
      run.report.fitness.map((f) => f.code + ': ' + f.fact).join('; '),
    );
  }
} finally {
  await client.close();
  await program.stop();
  await line.close();
}
