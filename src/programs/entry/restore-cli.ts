import { resolve } from 'node:path';
import { Command } from 'commander';
import { labelOf, restore } from '../folder/backup-folder';
import { wallMs } from '../supervise/clocks';
import { openDataFolder } from '../folder/data-folder';
import { endWithFault } from '../faults/end-with-fault';

/** Puts a copy back. The console must not be running; what is there now is laid aside. */
async function run(from: string, { data }: { readonly data: string }): Promise<void> {
  const [copy, folder] = [resolve(from), resolve(data)];
  const release = await openDataFolder(folder);
  try {
    const aside = await restore(copy, folder, wallMs());
    const label = labelOf(copy)!;
    console.log(`Put back: ${label.runs} runs, copied ${new Date(label.madeAtMs).toISOString()}.`);
    if (aside !== null) console.log(`What was there lies in ${aside}.`);
  } finally {
    release();
  }
}

new Command('bent-straw restore')
  .description('put a copy of the data folder back')
  .argument('<from>', 'the folder that the backup wrote')
  .option('--data <folder>', 'folder of the database', 'data')
  .showHelpAfterError()
  .action(run)
  .parseAsync()
  .catch(endWithFault);
