import { existsSync, mkdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { command } from './command';

const SOURCE = 'lab/net/delay-forwarder.c';
const PROGRAM = join(process.cwd(), 'dist/tools/delay-forwarder');

/** The compiled delay forwarder; compiles it when it is missing or older than its source. */
export function delayForwarder(): string {
  const current = existsSync(PROGRAM) && statSync(PROGRAM).mtimeMs > statSync(SOURCE).mtimeMs;
  if (current) return PROGRAM;
  mkdirSync('dist/tools', { recursive: true });
  command('cc', '-O2', '-o', PROGRAM, SOURCE);
  return PROGRAM;
}
