import type { ProfileName } from '@/core';
import { agentsClient } from '../clients/agents-client';
import { browserClient } from '../clients/browser-client';
import { engineClient } from '../clients/engine-client';
import type { LabClient } from '../clients/lab-client';
import { nodeClient } from '../clients/node-client';
import { Unfinished, watchedRun, type WatchedRun } from '../measure-run';
import { LabLine, PLAIN_LINE, type LabLineConfig } from '../net/lab-line';
import { startLabProgram, type LabProgram } from '../net/lab-program';

export type ClientName = Exclude<LabClient['name'], 'Node, web'>;

/** A line that stands, with the program at its far end and a client at the near one. */
export interface Bench {
  readonly line: LabLine;
  readonly program: LabProgram;
  readonly client: LabClient;
}

export function clientFor(name: ClientName, line: LabLine, program: LabProgram): Promise<LabClient> {
  const netns = line.netns('client');
  switch (name) {
    case 'Node':
      return Promise.resolve(nodeClient(netns));
    case 'Chromium':
      return browserClient(netns);
    case 'Firefox':
    case 'WebKit':
      return engineClient(name, netns);
    case 'Agents':
      return agentsClient(line, program);
  }
}

/** Builds a line with everything on it, lends it, and takes all of it down again, whatever happens. */
export async function onBench<Result>(
  config: Partial<LabLineConfig>,
  clientName: ClientName,
  use: (bench: Bench) => Promise<Result>,
): Promise<Result> {
  const line = new LabLine({ ...PLAIN_LINE, ...config });
  const stops: (() => Promise<void>)[] = [() => line.close()];
  try {
    await line.open();
    const program = await startLabProgram(line);
    stops.push(() => program.stop());
    const client = await clientFor(clientName, line, program);
    stops.push(() => client.close());
    return await use({ line, program, client });
  } finally {
    for (const stop of stops.reverse()) await stop().catch((error: Error) => console.error(error.message));
  }
}

/** A run during which a neighbour took more than this of the processors is made once more. */
const MOST_STOLEN = 0.05;

/**
 * Several watched runs over one line. A run without a result is said and left out; of runs that were disturbed, and made
 * once more, the least disturbed ones count.
 */
export async function watchedRuns(
  config: Partial<LabLineConfig>,
  clientName: ClientName,
  runs: number,
  profile: ProfileName = 'standard',
): Promise<{ readonly runs: WatchedRun[]; readonly line: LabLineConfig }> {
  return onBench(config, clientName, (bench) => quietRuns(bench, runs, profile));
}

/** Runs on a bench that stands; of those that were disturbed the least disturbed ones. */
export async function quietRuns(
  { line, program, client }: { line: LabLine; program: Pick<LabProgram, 'joinAddress'>; client: LabClient },
  runs: number,
  profile: ProfileName,
) {
  const done: WatchedRun[] = [];
  const quiet = () => done.filter(({ stolen }) => stolen <= MOST_STOLEN).length;
  for (let run = 0; run < 2 * runs && quiet() < runs; run += 1) {
    try {
      done.push(await watchedRun(line, program, client, profile));
    } catch (error) {
      if (!(error instanceof Unfinished)) throw error;
      console.error(`  no result: ${error.message}`);
    }
  }
  const counted = done.sort((a, b) => a.stolen - b.stolen).slice(0, runs);
  return { runs: counted, line: line.config };
}

/** Both directions shaped alike. */
export function symmetric(rateMbps: number | null, queueMs: number) {
  return { down: { rateMbps, queueMs }, up: { rateMbps, queueMs } };
}
