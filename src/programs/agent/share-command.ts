import type { Command } from 'commander';
import { AgentFault } from '@/agent';
import { lookAt } from './look-command';

interface ShareOptions {
  readonly size: string;
  readonly files: string;
  readonly json?: boolean;
}

/** A whole number as typed. Throws AgentFault. */
function readWhole(option: string, value: string, wanted: string): number {
  if (/^\d+$/.test(value)) return Number(value);
  throw new AgentFault('option-malformed', { option, value, wanted });
}

async function share(folder: string, { size, files, json }: ShareOptions): Promise<void> {
  const typed = {
    ...{ what: 'share', folder },
    megabytes: readWhole('--size', size, 'Give megabytes, such as 512.'),
    streams: readWhole('--files', files, 'Give a number from 1 to 8.'),
  };
  return lookAt(typed, json === true, 'share', folder);
}

/** Writes to a mounted folder and reads it back. */
export function addShareCommand(program: Command): void {
  program
    .command('share')
    .description('write files to a mounted folder and read them back, past the cache: what the store behind it can do')
    .argument('<folder>', 'a folder of the share, where this user may write')
    .option('--size <megabytes>', 'how much altogether', '512')
    .option('--files <number>', 'so many files at the same time', '1')
    .option('--json', 'print all that was counted as JSON')
    .action(share);
}
