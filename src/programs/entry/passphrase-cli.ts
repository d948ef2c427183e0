import { existsSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command } from 'commander';
import { passphraseToken, RESET_MS } from '@/services';
import { readPeople, type KnownPerson } from '@/store';
import { DEFAULT_PORT } from '@/wire';
import { lanAddresses } from '@/wire/address';
import { readSigningKey } from '@/wire/peer/ticket';
import { wallMs } from '../supervise/clocks';
import { dataFiles } from '../folder/data-folder';
import { endWithFault } from '../faults/end-with-fault';
import { ProgramFault } from '../faults/program-faults';
import { storeFault } from '../faults/store-fault';

interface Options {
  readonly data: string;
  readonly port: string;
}

const shownName = ({ name }: KnownPerson) => (name === '' ? '(no name yet)' : name);

/** Whose passphrase is meant: the named one's, or that of the only one there is. */
function personMeant(people: readonly KnownPerson[], name: string | undefined): KnownPerson {
  const [only] = people;
  if (only === undefined) throw new ProgramFault('nobody-yet');
  if (name === undefined && people.length === 1) return only;
  const found = people.find((person) => person.name.toLocaleLowerCase() === name?.trim().toLocaleLowerCase());
  if (found === undefined)
    throw new ProgramFault('person-unknown', { name: name ?? 'no name', names: people.map(shownName).join(', ') });
  return found;
}

/**
 * Prints a link by which somebody sets a new passphrase. Whoever may read the data folder's key may do so; the console
 * may run meanwhile, and nothing is changed until the link is used.
 */
async function run(name: string | undefined, { data, port }: Options): Promise<void> {
  const folder = resolve(data);
  const { database, signingKey } = dataFiles(folder);
  if (!existsSync(database)) throw new ProgramFault('data-missing', { folder });
  const people = await readPeople(database).catch((error: unknown) => {
    throw storeFault(error, folder);
  });
  const person = personMeant(people, name);
  const untilMs = wallMs() + RESET_MS;
  const token = passphraseToken({ signingKey: readSigningKey(readFileSync(signingKey, 'utf8')) }, person, untilMs);
  const hosts = ['localhost', ...lanAddresses()];
  console.log(`A new passphrase for ${shownName(person)} is set at one of these, once, within half an hour:\n`);
  for (const host of hosts) console.log(`  http://${host}:${port}/passphrase/${token}`);
  console.log('\nWherever he or she is signed in now, that ends when it is set. The console must be running.');
}

new Command('bent-straw passphrase')
  .description('make a link by which somebody sets a new passphrase')
  .argument('[name]', 'whose; not needed where there is only one person')
  .option('--data <folder>', 'folder of the console', 'data')
  .option('--port <number>', 'port of the console', String(DEFAULT_PORT))
  .showHelpAfterError()
  .action(run)
  .parseAsync()
  .catch(endWithFault);
