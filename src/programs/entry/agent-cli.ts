import '../agent/small-schemas';
import { Command } from 'commander';
import { AgentFault } from '@/agent';
import { addJoinCommand } from '../agent/join-command';
import { addLookCommand } from '../agent/look-command';
import { addRunCommand } from '../agent/run-command';
import { addServeCommand } from '../agent/serve-command';
import { addShareCommand } from '../agent/share-command';
import { addUnitCommand } from '../agent/unit-command';
import { programVersion } from '../folder/version';

const program = new Command('bent-straw agent').version(programVersion()).showHelpAfterError();
addRunCommand(program);
addJoinCommand(program);
addServeCommand(program);
addUnitCommand(program);
addLookCommand(program);
addShareCommand(program);

program.parseAsync().catch((error: unknown) => {
  if (process.stderr.isTTY) process.stderr.write('\r\x1b[2K');
  if (!(error instanceof AgentFault)) throw error;
  console.error(`${error.message} [${error.code}]`);
  process.exit(error.exitCode);
});
