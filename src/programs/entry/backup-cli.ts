import { resolve } from 'node:path';
import { Command } from 'commander';
import { backUp, backupsIn } from '../folder/backup-folder';
import { wallMs } from '../supervise/clocks';
import { dataFiles } from '../folder/data-folder';
import { endWithFault } from '../faults/end-with-fault';

interface BackupCliOptions {
  readonly data: string;
}

/** Copies the data folder; the console may run meanwhile. Without a name it lists the copies that there are. */
async function run(to: string | undefined, { data }: BackupCliOptions): Promise<void> {
  const folder = resolve(data);
  if (to === undefined) {
    const kept = backupsIn(dataFiles(folder).backups);
    for (const { folder: place, madeAtMs, runs } of kept)
      console.log(`${new Date(madeAtMs).toISOString()}  ${runs} runs  ${place}`);
    if (kept.length === 0) console.log(`There is no copy in ${dataFiles(folder).backups} yet.`);
    return;
  }
  const made = await backUp(folder, resolve(to), wallMs());
  console.log(`Copied ${made.runs} runs, offices and keys to ${made.folder}, and looked at the copy: it is whole.`);
  console.log('Whoever has it can sign for this console: keep it as safe as the machine itself.');
}

new Command('bent-straw backup')
  .description('copy the data folder, database and keys, also while the console runs')
  .argument('[to]', 'a folder that is not there yet; without one, the copies of the nights are listed')
  .option('--data <folder>', 'folder of the database', 'data')
  .showHelpAfterError()
  .action(run)
  .parseAsync()
  .catch(endWithFault);
