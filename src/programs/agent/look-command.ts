import type { Command } from 'commander';
import { AgentFault, doLook, lookAround, lookAtMachine, lookAtPrograms, LookFault, programWords } from '@/agent';
import { lookSentence, machineSentence, type NetLink } from '@/core';
import { lookAskedSchema } from '@/wire';

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

/** Looks at what a console would ask about, and says what was found. */
export async function lookAt(typed: unknown, json: boolean, option: string, value: string): Promise<void> {
  const asked = lookAskedSchema.safeParse(typed);
  if (!asked.success)
    throw new AgentFault('option-malformed', { option, value, wanted: asked.error.issues[0]?.message ?? '' });
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
  try {
    const found = await doLook(asked.data, stop.signal);
    console.log(json ? JSON.stringify(found) : lookSentence(found, null));
  } catch (error) {
    if (error instanceof LookFault) throw new AgentFault('look-refused', { sentence: error.message });
    throw error;
  }
}

interface LookOptions {
  readonly path?: string;
  readonly echo?: string;
  readonly names?: boolean | readonly string[];
  readonly json?: boolean;
  readonly programs?: boolean;
}

async function look({ json = false, programs: wanted, path, echo, names }: LookOptions): Promise<void> {
  if (path !== undefined) return lookAt({ what: 'path', target: path }, json, '--path', path);
  if (echo !== undefined) return lookAt({ what: 'echo', target: echo }, json, '--echo', echo);
  if (names !== undefined) {
    const resolvers = typeof names === 'object' ? names : [];
    return lookAt({ what: 'names', resolvers }, json, '--names', resolvers.join(' '));
  }
  if (wanted === true) return programs();
  const [facts, neighbours] = await Promise.all([lookAtMachine(), lookAround()]);
  if (json) return console.log(JSON.stringify({ ...facts, neighbours }, null, 2));
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
    .option('--path <host>', 'the routers on the way to a host, and the largest packet that goes through')
    .option('--echo <host>', 'the delay to a host')
    .option('--names [resolvers...]', 'resolvers side by side: this machine’s, the gateway, and those named here')
    .action(look);
}
