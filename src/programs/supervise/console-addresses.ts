import { readFileSync } from 'node:fs';
import QRCode from 'qrcode';
import { lanAddresses } from '@/wire/address';
import { dataFiles } from '../folder/data-folder';
import type { PartFacts } from './child-link';

const say = (line = ''): void => console.log(line);

/** Prints where the console is, how a device joins, and how the technician gets in. `facts`: the console's. */
export async function showAddresses(demo: boolean, port: number, dataFolder: string, facts: PartFacts): Promise<void> {
  const { joinAddress, joinCode, here, welcome } = facts;
  say(`  Console    http://localhost:${port}`);
  for (const address of lanAddresses()) say(`             http://${address}:${port}`);
  say(`             (https works on the same port; how to accept its certificate: http://localhost:${port}/trust)`);
  if (typeof joinAddress !== 'string') {
    say('\n  Open the console and name the office; it then shows the code for other devices.');
  } else {
    say(`\n  Join from another device: ${joinAddress}   (code ${joinCode})`);
    say(`  From this machine, once:  http://localhost:${port}/here/${here}\n`);
    say(await QRCode.toString(joinAddress, { type: 'utf8' }));
  }
  if (typeof welcome === 'string')
    say(`\n  First start: set the technician’s passphrase at http://localhost:${port}/welcome/${welcome}`);
  if (demo) say(`  Sign in with the passphrase: ${readFileSync(dataFiles(dataFolder).demoPassphrase, 'utf8').trim()}`);
  if (demo) say('  Demo data: Larkspur Bindery, two made-up offices. Start over with: npm run demo -- --fresh');
  say('  Stop with Ctrl-C.');
}
