import { hostname } from 'node:os';
import type { Command } from 'commander';
import { AgentFault, joinConsole, keepEnrolment, KnownDevices, linkTowards, postTo, readConsoleAddress } from '@/agent';
import { machineSentence } from '@/core';
import { agentHello } from './agent-hello';
import { serve } from './serve-command';

interface JoinOptions {
  readonly name: string;
  readonly spot: string;
  readonly only?: boolean;
}

async function join(address: string, { name, spot, only }: JoinOptions): Promise<void> {
  const { origin, code } = readConsoleAddress(address);
  if (code === null) throw new AgentFault('code-missing', { address });
  const link = (await linkTowards(new URL(origin).hostname)) ?? { medium: 'unknown' as const };
  const hello = await agentHello(0);
  const post = postTo(origin, name, new KnownDevices());
  const { deviceName, officeName } = await joinConsole({ origin, post, code, name, spotName: spot, link, hello });
  keepEnrolment({ origin, name: deviceName, officeName });
  console.log(`${deviceName} is an agent of ${officeName} now: ${machineSentence(hello.facts)}.`);
  if (only === true) return;
  console.log('Standing by. Ctrl-C ends it; to let it go on by itself after each start: unit --install');
  await serve();
}

/** Enrols this machine, and lets it stand by. */
export function addJoinCommand(program: Command): void {
  program
    .command('join')
    .description('enrol this machine at a console and stand by')
    .argument('<address>', 'address of the console as its page of agents shows it: http://HOST:4870/j/CODE')
    .option('--name <text>', 'name of this machine', hostname())
    .option('--spot <text>', 'where it stands', '')
    .option('--only', 'enrol and end; serve stands by later')
    .action(join);
}
