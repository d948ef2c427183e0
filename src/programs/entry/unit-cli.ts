import { join } from 'node:path';
import { Command } from 'commander';
import { hiddenFromService, systemdUnit } from '@/agent';
import { ProgramFault } from '../faults/program-faults';
import { PROGRAM_FOLDER } from '../folder/version';

/** Where each keeps what it must not lose, below /var/lib. */
const STATES = { console: 'bent-straw-console', peer: 'bent-straw-peer' } as const;
const PROGRAMS = { console: ['launch.js', 'start'], peer: ['peer-cli.js'] } as const;

function print(which: keyof typeof STATES, more: readonly string[]): void {
  const state = `/var/lib/${STATES[which]}`;
  const [file, ...words] = PROGRAMS[which];
  const own = which === 'console' ? ['--data', state] : ['--key', `${state}/peer-key.pem`, '--log', `${state}/log`];
  const started = [process.execPath, join(PROGRAM_FOLDER, 'dist', file), ...words, ...own, ...more];
  process.stdout.write(systemdUnit({ ...{ what: which, state: STATES[which] }, words: started }));
  const hidden = hiddenFromService(started);
  if (hidden.length === 0) return;
  const { code, message } = new ProgramFault('unit-hidden', { hidden: hidden.join(' and ') });
  console.error(`${message} [${code}]`);
}

const program = new Command('bent-straw unit')
  .description('print a systemd unit: npm run -s unit -- console > /etc/systemd/system/bent-straw-console.service')
  .showHelpAfterError();
for (const which of ['console', 'peer'] as const)
  program
    .command(which)
    .description(which === 'console' ? 'of npm start, with its data below /var/lib' : 'of npm run peer')
    .argument('[options...]', `what else it is to be started with, behind --: -- --port 4870`)
    .action((more: string[]) => print(which, more));
program.parse();
