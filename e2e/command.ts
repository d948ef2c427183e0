import { spawn } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';

export interface Ran {
  readonly exit: number | null;
  readonly said: string;
}

/** Runs `npm run NAME -- ARGS` to its end, or until it has said something and is interrupted. */
export function command(
  name: string,
  args: readonly string[] = [],
  more: { env?: object; until?: RegExp } = {},
): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn('npm', ['run', '--silent', name, '--', ...args], {
      env: { ...process.env, ...more.env },
      detached: true,
    });
    let said = '';
    let interrupted = false;
    const hear = (part: Buffer) => {
      said += part.toString();
      if (interrupted || !more.until?.test(said)) return;
      interrupted = true;
      // As Ctrl-C does: the whole group hears it.
      process.kill(-child.pid!, 'SIGINT');
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('close', (exit) => resolve({ exit, said }));
  });
}

/** What runs on this machine with a word in its command line. */
export function running(word: string): string[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
        return line.includes(word) && !line.includes('playwright') ? [line] : [];
      } catch {
        return [];
      }
    });
}
