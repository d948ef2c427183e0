import { readFileSync } from 'node:fs';
import QRCode from 'qrcode';
import { hereToken, joinAddresses, welcomeToken } from '@/services';
import { openStore } from '@/store';
import { lanAddresses } from '@/wire/address';
import { readSigningKey } from '@/wire/peer/ticket';
import { wallMs } from './clocks';
import { dataFiles } from '../folder/data-folder';

const say = (line = ''): void => console.log(line);

/** Prints where the console is, how a device joins, and how the technician gets in. */
export async function showAddresses(demo: boolean, port: number, dataFolder: string): Promise<void> {
  const files = dataFiles(dataFolder);
  const store = await openStore(files.database);
  const [site] = await store.sites.all();
  const passphraseSet = (await store.access.technicians()).length > 0;
  await store.close();
  say(`  Console    http://localhost:${port}`);
  for (const address of lanAddresses()) say(`             http://${address}:${port}`);
  say(`             (https works on the same port; how to accept its certificate: http://localhost:${port}/trust)`);
  if (site === undefined) {
    say('\n  Open the console and name the office; it then shows the code for other devices.');
  } else {
    const [joinAddress] = joinAddresses(port, site.joinCode);
    say(`\n  Join from another device: ${joinAddress}   (code ${site.joinCode})`);
    const here = hereToken(readSigningKey(readFileSync(files.signingKey, 'utf8')), wallMs());
    say(`  From this machine, once:  http://localhost:${port}/here/${here}\n`);
    say(await QRCode.toString(joinAddress!, { type: 'utf8' }));
  }
  if (!passphraseSet) {
    const token = welcomeToken({ signingKey: readSigningKey(readFileSync(files.signingKey, 'utf8')) });
    say(`\n  First start: set the technician’s passphrase at http://localhost:${port}/welcome/${token}`);
  }
  if (demo) say(`  Sign in with the passphrase: ${readFileSync(files.demoPassphrase, 'utf8').trim()}`);
  if (demo) say('  Demo data: Larkspur Bindery, two made-up offices. Start over with: npm run demo -- --fresh');
  say('  Stop with Ctrl-C.');
}
