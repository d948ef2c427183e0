import type { Command } from 'commander';
import { lookAround, lookAtMachine, lookAtPrograms, programWords } from '@/agent';
import { machineSentence, type NetLink } from '@/core';

const orUnknown = (value: string | number | null, unit: string) => (value === null ? 'not told' : `${value}${unit}`);

function linkLine({ name, medium, up, speedMbps, duplex, mtuBytes, driver, addresses }: NetLink): string {
  if (!up) return `  ${name}: ${medium}, not up`;
  const facts = [
    `rate ${orUnknown(speedMbps, ' Mb/s')}`,
    `duplex ${orUnknown(duplex, '')}`,
    `packets of ${orUnknown(mtuBytes, ' bytes')}`,
    `driver ${orUnknown(driver, '')}`,
  ];
  return `  ${name}: ${medium}, ${facts.join(', ')}; ${addresses.join(', ') || 'no address'}`;
}

const PROGRAMS_MS = 10_000;

async function programs(): Promise<void> {
  const busy = await lookAtPrograms(PROGRAMS_MS, new AbortController().signal);
  if (busy === null) return console.log('The system has no ss, which tells what programs move.');
  console.log(`Programs on the line, over ${PROGRAMS_MS / 1000} s: ${busy.length === 0 ? 'none over TCP' : ''}`);
  for (const each of busy) console.log(`  ${programWords(each)}`);
  console.log('UDP is not seen, and of other users’ programs not whose they are.');
}

interface LookOptions {
  readonly json?: boolean;
  readonly programs?: boolean;
}

async function look({ json, programs: wanted }: LookOptions): Promise<void> {
  if (wanted === true) return programs();
  const [facts, neighbours] = await Promise.all([lookAtMachine(), lookAround()]);
  if (json === true) return console.log(JSON.stringify({ ...facts, neighbours }, null, 2));
  console.log(`${facts.system}: ${machineSentence(facts)}`);
  console.log('Links');
  for (const link of facts.links) console.log(linkLine(link));
  console.log(`Resolvers: ${facts.resolvers.join(', ') || 'none known'}`);
  console.log(`On the same network: ${neighbours.length === 0 ? 'nobody heard yet' : ''}`);
  for (const { address, mac, link } of neighbours) console.log(`  ${address}  ${mac}  ${link}`);
}

/** What the agent sees of this machine. */
export function addLookCommand(program: Command): void {
  program
    .command('look')
    .description('what this machine sees of itself: links, gateway, resolvers, neighbours')
    .option('--json', 'print it as JSON')
    .option('--programs', 'which programs move how much, for ten seconds')
    .action(look);
}
