import { spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { readPingLine, readPingTarget, type PingEvent } from '@/core';
import { LookFault } from './look-fault';

export interface PingRun {
  readonly events: PingEvent[];
  readonly address: string | null;
}

/** `through`: what starts it elsewhere, such as in another network namespace. Starts the system's ping with numbers only, in plain English, and reads what it says as it comes; resolves with its end. */
export function pingProcess(
  args: readonly string[],
  signal: AbortSignal,
  onEvent: (event: PingEvent) => void,
  through: readonly string[] = [],
): Promise<{ readonly said: string; readonly exit: number | null }> {
  return new Promise((resolve, reject) => {
    const [command, ...before] = [...through, 'ping'] as const;
    const child = spawn(command, [...before, '-n', '-D', '-O', ...args], {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, LC_ALL: 'C' },
    });
    const stop = () => child.kill('SIGINT');
    signal.addEventListener('abort', stop);
    let said = '';
    createInterface({ input: child.stdout }).on('line', (line) => {
      const event = readPingLine(line);
      if (event === null) {
        // The head and the sums; a process that lives for months says neither again.
        if (said.length < 2000) said += `${line}\n`;
      } else onEvent(event);
    });
    child.stderr.on('data', (text: Buffer) => (said += said.length < 2000 ? text.toString() : ''));
    child.once('error', (error: NodeJS.ErrnoException) => {
      signal.removeEventListener('abort', stop);
      reject(error.code === 'ENOENT' || error.code === 'EACCES' ? new LookFault('no-ping') : error);
    });
    child.once('close', (exit) => {
      signal.removeEventListener('abort', stop);
      resolve({ said, exit });
    });
  });
}

/** Runs ping to its end. Throws LookFault: it is not there, may not be used, or knows no such target. */
export async function ping(target: string, args: readonly string[], signal: AbortSignal): Promise<PingRun> {
  const events: PingEvent[] = [];
  const { said } = await pingProcess([...args, '--', target], signal, (event) => events.push(event));
  if (/Name or service not known|Temporary failure|No address associated|unknown host/i.test(said))
    throw new LookFault('target-unknown', { target });
  if (/Operation not permitted|Lacking privilege/i.test(said)) throw new LookFault('no-ping');
  return { events, address: readPingTarget(said) };
}
