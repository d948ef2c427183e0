import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command } from 'commander';
import { METHOD_VERSION } from '@/core';
import { recompute } from '@/services';
import { openStore } from '@/store';
import { dataFiles, openDataFolder } from '../folder/data-folder';
import { ProgramFault } from '../faults/program-faults';
import { storeFault } from '../faults/store-fault';

interface RecomputeCliOptions {
  readonly data: string;
  readonly all?: boolean;
  readonly dry?: boolean;
}

const shown = (value: unknown) => (typeof value === 'number' ? String(Number(value.toPrecision(6))) : String(value));

/** Brings the runs of a data folder to the current method, and says what changed. The console must not be running. */
async function run({ data, all = false, dry = false }: RecomputeCliOptions): Promise<void> {
  const folder = resolve(data);
  const { database } = dataFiles(folder);
  if (!existsSync(database)) throw new ProgramFault('data-missing', { folder });
  const release = await openDataFolder(folder);
  const store = await openStore(database).catch((error: unknown) => {
    throw storeFault(error, folder);
  });
  let finished = 0;
  const counts = { same: 0, changed: 0, 'no-samples': 0 };
  try {
    finished = await store.runs.countFinished();
    for await (const { run: stored, status, changes } of recompute({ store }, { all, dry })) {
      counts[status] += 1;
      if (status === 'same') continue;
      console.log(`${new Date(stored.startedAtMs).toISOString()}  ${stored.deviceName}  ${stored.id}`);
      if (status === 'no-samples') console.log('  no raw samples are kept: left as it is');
      for (const { what, before, after } of changes) console.log(`  ${what}: ${shown(before)} → ${shown(after)}`);
    }
  } finally {
    await store.close();
    release();
  }
  const looked = counts.same + counts.changed + counts['no-samples'];
  if (looked === 0) {
    console.log(`All ${finished} runs are of method version ${METHOD_VERSION}: nothing to do. --all makes them anew.`);
    return;
  }
  const doing = dry ? 'would change' : 'changed';
  console.log(
    `Method version ${METHOD_VERSION}: ${counts.changed} ${doing}, ${counts.same} the same, ${counts['no-samples']} without samples.`,
  );
}

new Command('bent-straw recompute')
  .description('bring stored runs to the current method, from their raw samples')
  .option('--data <folder>', 'folder of the database', 'data')
  .option('--all', 'also runs that the current method made')
  .option('--dry', 'say what would change, and change nothing')
  .showHelpAfterError()
  .action(run)
  .parseAsync()
  .catch((error: unknown) => {
    if (!(error instanceof ProgramFault)) throw error;
    console.error(`${error.message} [${error.code}]`);
    process.exit(1);
  });
