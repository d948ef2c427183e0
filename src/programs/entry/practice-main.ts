import { readFileSync } from 'node:fs';
import { readPracticeDocument, startPracticeLine } from '@/peer';
import { linkToLauncher } from '../supervise/child-link';
import { monotonicMs } from '../supervise/clocks';
import { listenFault, ProgramFault } from '../faults/program-faults';

/** Runs the practice lines of one JSON document: `practice-main.js FILE`. */
const file = process.argv[2]!;
const stops: (() => Promise<void>)[] = [];
const launcher = linkToLauncher(async () => {
  await Promise.all(stops.map((stop) => stop()));
});

async function main(): Promise<void> {
  const read = readPracticeDocument(readFileSync(file, 'utf8'));
  if (!read.ok) throw new ProgramFault('practice-config', { complaints: read.complaints.join('; '), file });
  for (const config of read.document.lines) {
    const line = await startPracticeLine(config, monotonicMs).catch((error: NodeJS.ErrnoException) => {
      throw listenFault(error, config.listenPort);
    });
    stops.push(() => line.close());
  }
  launcher.ready();
}

main().catch((error: unknown) => {
  if (error instanceof ProgramFault) launcher.failed(error.code, error.message);
  else throw error;
});
