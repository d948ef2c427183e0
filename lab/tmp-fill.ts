import { join } from 'node:path';
import { newDataFolder, startProgram } from '../e2e/program';
import { fillStore } from './bench/full-store';
for (const runs of [20_000, 100_000]) {
  const data = newDataFolder();
  const p = await startProgram({ mode: 'start', port: 4996, data, more: ['--office', 'Bench'] });
  await p.interrupt();
  await fillStore(data, runs);
  console.log(runs, data);
}
process.exit(0);
