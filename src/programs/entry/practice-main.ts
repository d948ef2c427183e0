import { readFileSync, unwatchFile, watchFile } from 'node:fs';
import { isDeepStrictEqual } from 'node:util';
import { readPracticeDocument, startPracticeLine, type PracticeLine, type PracticeLineConfig } from '@/peer';
import { linkToLauncher } from '../supervise/child-link';
import { monotonicMs } from '../supervise/clocks';
import { listenFault, ProgramFault } from '../faults/program-faults';

/** Runs the practice lines of one JSON document, and follows what is changed in it: `practice-main.js FILE`. */
const file = process.argv[2]!;
const LOOK_MS = 300;

interface Running {
  readonly config: PracticeLineConfig;
  readonly line: PracticeLine;
}
const running = new Map<number, Running>();

const launcher = linkToLauncher(async () => {
  unwatchFile(file);
  await Promise.all([...running.values()].map(({ line }) => line.close()));
});

function configured(): readonly PracticeLineConfig[] {
  const read = readPracticeDocument(readFileSync(file, 'utf8'));
  if (!read.ok) throw new ProgramFault('practice-config', { complaints: read.complaints.join('; '), file });
  return read.document.lines;
}

async function start(config: PracticeLineConfig): Promise<void> {
  const line = await startPracticeLine(config, monotonicMs).catch((error: NodeJS.ErrnoException) => {
    throw listenFault(error, config.listenPort);
  });
  running.set(config.listenPort, { config, line });
}

/** A line that was changed is closed and opened anew: runs through it break off, as they would when a cable is pulled. */
async function follow(): Promise<void> {
  for (const config of configured()) {
    const before = running.get(config.listenPort);
    if (before === undefined || isDeepStrictEqual(before.config, config)) continue;
    await before.line.close();
    await start(config);
  }
}

async function main(): Promise<void> {
  for (const config of configured()) await start(config);
  let following = Promise.resolve();
  watchFile(file, { interval: LOOK_MS }, () => {
    // A document that cannot be read changes nothing.
    following = following.then(follow).catch((error: Error) => {
      process.stderr.write(`${error.message}\n`);
    });
  });
  launcher.ready();
}

main().catch((error: unknown) => {
  if (error instanceof ProgramFault) launcher.failed(error.code, error.message);
  else throw error;
});
