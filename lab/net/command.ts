import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { childOfTool } from '../end-together';

/** Runs a command to its end; throws with what it said when it fails. Gives its standard output. */
export function command(file: string, ...args: string[]): string {
  try {
    return execFileSync(file, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
  } catch (error) {
    const { stderr } = error as { stderr?: string };
    throw new Error(`${file} ${args.join(' ')}: ${stderr?.trim() || String(error)}`);
  }
}

/** The same inside a network namespace. */
export function commandIn(netns: string, file: string, ...args: string[]): string {
  return command('ip', 'netns', 'exec', netns, file, ...args);
}

/** Whether a program can be started here. */
export function isInstalled(file: string): boolean {
  return spawnSync('sh', ['-c', `command -v ${file}`]).status === 0;
}

/** Starts a program inside a network namespace. Its standard input stays open until it is stopped. */
export function startIn(netns: string, file: string, ...args: string[]): ChildProcess {
  return childOfTool(spawn('ip', ['netns', 'exec', netns, file, ...args], { stdio: ['pipe', 'pipe', 'inherit'] }));
}

/** Resolves with the first line of a program's output that fits; rejects when it ends before. */
export function lineOf(child: ChildProcess, pattern: RegExp): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = '';
    child.stdout!.on('data', (part: Buffer) => {
      text += part.toString();
      const line = text.split('\n').find((candidate) => pattern.test(candidate));
      if (line !== undefined) resolve(line);
    });
    child.once('exit', (code) => reject(new Error(`ended with ${code} before it was ready: ${text}`)));
  });
}

export function ended(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => child.once('exit', () => resolve()));
}
