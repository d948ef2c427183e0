import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, realpathSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type { Command } from 'commander';
import { AgentFault, hiddenFromService, readEnrolment, stateFolder, systemdUnit } from '@/agent';
import { PROGRAM_FOLDER } from '../folder/version';

const UNIT_FILE = '/etc/systemd/system/bent-straw-agent.service';
const PROGRAM_FILE = '/usr/local/lib/bent-straw/agent.mjs';
const STATE_FOLDER = '/var/lib/bent-straw';

interface UnitOptions {
  readonly install?: boolean;
  readonly root: string;
}

/** The agent as one file: this one, or, started from the repository, the one that was built beside it. */
function agentFile(): string {
  return process.env['BENT_STRAW_VERSION'] === undefined
    ? join(PROGRAM_FOLDER, 'dist', 'agent.mjs')
    : realpathSync(process.argv[1]!);
}

/** The unit hides what people have at home from the service: a Node there could not be started. */
function refuseHidden(node: string, root: string): void {
  if (root === '/' && hiddenFromService([node]).length > 0)
    throw new AgentFault('unit-refused', {
      file: UNIT_FILE,
      why: `Node is at ${node}, where a service does not see it; install it for the whole machine`,
    });
}

/** Puts a file below another root, for whoever prepares an image. */
const below = (root: string, file: string) => join(root, file);

function install(root: string, unit: string): void {
  const [unitFile, programFile, state] = [UNIT_FILE, PROGRAM_FILE, STATE_FOLDER].map((file) => below(root, file));
  try {
    for (const folder of [dirname(unitFile!), dirname(programFile!), dirname(state!)])
      mkdirSync(folder, { recursive: true });
    cpSync(agentFile(), programFile!);
    // Where it joined, and what it measured and could not hand in yet, goes with it. systemd has a link there.
    cpSync(stateFolder(), existsSync(state!) ? realpathSync(state!) : state!, { recursive: true });
    writeFileSync(unitFile!, unit);
  } catch (error) {
    throw new AgentFault('unit-refused', {
      file: unitFile!,
      why: error instanceof Error ? error.message : String(error),
    });
  }
  if (root !== '/') return console.log(`Written below ${root}.`);
  execFileSync('systemctl', ['daemon-reload'], { stdio: 'inherit' });
  execFileSync('systemctl', ['enable', '--now', 'bent-straw-agent.service'], { stdio: 'inherit' });
  console.log('It stands by now, and after each start of this machine: journalctl -u bent-straw-agent');
}

function unit({ install: isWanted, root }: UnitOptions): void {
  if (readEnrolment() === null) throw new AgentFault('not-joined');
  const installed = isWanted === true;
  const text = systemdUnit({
    ...{ what: 'agent', state: basename(STATE_FOLDER), memory: '200M' },
    words: [process.execPath, installed ? PROGRAM_FILE : agentFile(), 'serve'],
  });
  if (installed) {
    refuseHidden(process.execPath, root);
    install(root, text);
  } else process.stdout.write(text);
}

/** Lets a machine with systemd keep the agent standing by. */
export function addUnitCommand(program: Command): void {
  program
    .command('unit')
    .description('print a systemd unit that keeps this agent standing by, or install and start it')
    .option('--install', 'write it, copy program and state to where it finds them, and start it (as root)')
    .option('--root <folder>', 'install below another root and start nothing', '/')
    .action(unit);
}
