import { cpus } from 'node:os';
import { Command } from 'commander';
import type { ProfileName } from '@/core';
import type { FarLook } from '@/wire';
import {
  basesTable,
  edgesTable,
  enginesTable,
  othersTable,
  queuesTable,
  ratesTable,
  singleTable,
} from './tables/accuracy';
import { betweenTable } from './tables/between';
import { economyTable, lossTable, togetherTable, troubleTable, unshapedTable } from './tables/behaviour';
import { changingTable } from './tables/changing';
import { removeLeftNamespaces } from './net/lab-line';
import { readyForLab } from './net/lab-rights';
import { faultsTable } from './tables/faults';
import { lanesTable } from './tables/lanes';
import { loadsTable } from './tables/loads';
import { queueTable } from './tables/queue';
import { tunnelTable } from './tables/tunnel';
import { NAMES_CLIENT, namesTable } from './tables/names';
import { PATH_CLIENT, pathsTable } from './tables/paths';
import { practiceTable } from './tables/practice';
import { webTable } from './tables/web';
import { runNamesClient } from './children/names-client';
import { runPathClient } from './children/path-client';
import { runWebClient } from './children/web-client';
import { WEB_CLIENT } from './clients/web-client';

/** The accuracy lab: real runs of the real program over lines that the kernel shapes, held against its own counters. */
const TABLES: Readonly<Record<string, (runs: number) => Promise<void>>> = {
  rates: ratesTable,
  engines: enginesTable,
  edges: edgesTable,
  changing: changingTable,
  queue: () => queueTable(),
  faults: () => faultsTable(),
  lanes: () => lanesTable(),
  loads: () => loadsTable(),
  names: () => namesTable(),
  paths: () => pathsTable(),
  between: betweenTable,
  bases: basesTable,
  queues: queuesTable,
  others: othersTable,
  single: singleTable,
  web: webTable,
  economy: economyTable,
  loss: lossTable,
  trouble: () => troubleTable(),
  together: () => togetherTable(),
  tunnel: tunnelTable,
  practice: practiceTable,
  unshaped: unshapedTable,
};

async function run(names: string[], { runs }: { runs: string }): Promise<void> {
  const missing = await readyForLab();
  if (missing !== null) {
    console.error(missing);
    process.exit(1);
  }
  removeLeftNamespaces();
  const [cpu] = cpus();
  console.log(
    `${new Date().toISOString().slice(0, 10)}, ${cpus().length} × ${cpu?.model.trim()}, Node ${process.versions.node}, ${runs} runs a row`,
  );
  for (const name of names.length === 0 ? Object.keys(TABLES) : names) {
    const table = TABLES[name];
    if (table === undefined) {
      console.error(`There is no table ${name}. Choose among: ${Object.keys(TABLES).join(', ')}.`);
      process.exit(1);
    }
    await table(Math.max(1, Number(runs) || 5));
  }
}

// Interrupted, the process ends at once; what it leaves behind is named after it and removed by the next start.
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    removeLeftNamespaces(process.pid);
    process.exit(130);
  });

const [, , word, page, profile] = process.argv;
// Started anew in a namespace by one of its own tables.
if (word === WEB_CLIENT) runWebClient(page!, profile as ProfileName);
else if (word === PATH_CLIENT) await runPathClient(page!, JSON.parse(profile!) as FarLook);
else if (word === NAMES_CLIENT) await runNamesClient(JSON.parse(page!) as string[], JSON.parse(profile!) as string[]);
else
  await new Command('lab')
    .argument('[tables...]', `which: ${Object.keys(TABLES).join(', ')}; all when none is named`)
    .option('--runs <number>', 'runs for each row', '5')
    .showHelpAfterError()
    .action(run)
    .parseAsync();
