import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command } from 'commander';
import { checkStore } from '@/store';
import { dataFiles } from '../folder/data-folder';
import { endWithFault } from '../faults/end-with-fault';
import { ProgramFault } from '../faults/program-faults';
import { storeFault } from '../faults/store-fault';

/** Looks into the database and says what is not as it should be; changes nothing. Exit code 1 when something is. */
async function run({ data }: { readonly data: string }): Promise<void> {
  const folder = resolve(data);
  const { database } = dataFiles(folder);
  if (!existsSync(database)) throw new ProgramFault('data-missing', { folder });
  const found = await checkStore(database).catch((error: unknown) => {
    throw storeFault(error, folder);
  });
  const { dangling, samplesWithoutRun, runsWithoutSamples, runs } = found;
  for (const { table, count } of dangling) console.log(`${count} rows of ${table} point to rows that are not there.`);
  if (samplesWithoutRun > 0) console.log(`${samplesWithoutRun} samples belong to no run.`);
  // Such records were possible before samples were kept in the same transaction: told, and no fault of the file.
  if (runsWithoutSamples > 0)
    console.log(`${runsWithoutSamples} finished runs have no samples and cannot be recomputed.`);
  const loose = dangling.length > 0 || samplesWithoutRun > 0;
  console.log(
    loose ? 'The file is whole, and something in it hangs loose.' : `Whole, and nothing hangs loose: ${runs} runs.`,
  );
  process.exitCode = loose ? 1 : 0;
}

new Command('bent-straw check')
  .description('look whether the database is whole')
  .option('--data <folder>', 'folder of the database', 'data')
  .showHelpAfterError()
  .action(run)
  .parseAsync()
  .catch(endWithFault);
