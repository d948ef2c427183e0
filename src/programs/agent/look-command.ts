import type { Command } from 'commander';
import { lookAround, lookAtMachine } from '@/agent';
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

async function look({ json }: { readonly json?: boolean }): Promise<void> {
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
    .action(look);
}
