import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where a driver listens: a port on loopback, reached over a Unix socket where that loopback is a namespace's. */
export interface Endpoint {
  readonly port: number;
  readonly socketPath: string | null;
}

/** A child that is killed as a whole, whatever it has started itself. */
export interface EngineProcess {
  readonly child: ChildProcess;
  stop(): Promise<void>;
}

const PATIENCE_MS = 30_000;

/** Starts a program, in a namespace where one is named. Its group ends with it. */
export function startEngineProcess(
  netns: string | null,
  command: string,
  args: readonly string[],
  env: Readonly<Record<string, string>> = {},
): EngineProcess {
  const [program, words] = netns === null ? [command, args] : ['ip', ['netns', 'exec', netns, command, ...args]];
  const child = spawn(program, words, {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'pipe', 'pipe'],
    detached: true,
  });
  const ended = once(child, 'exit');
  child.stderr!.resume();
  const stop = async () => {
    try {
      process.kill(-child.pid!, 'SIGKILL');
    } catch {
      // It has ended already.
    }
    await ended;
  };
  // Whoever started it may be stopped in the middle.
  const last = () => void stop();
  process.once('exit', last);
  return {
    child,
    stop: async () => {
      process.off('exit', last);
      await stop();
    },
  };
}

/** Resolves with what a child wrote to one of its outputs once that matches; rejects when it ends or takes too long. */
export function said({ child }: EngineProcess, output: 'stderr' | 3, pattern: RegExp): Promise<string> {
  const stream = output === 3 ? child.stdio[3]! : child.stderr!;
  return new Promise((resolve, reject) => {
    let text = '';
    const patience = setTimeout(
      () => reject(new Error(`${child.spawnfile} said nothing of use:\n${text}`)),
      PATIENCE_MS,
    );
    stream.on('data', (part: Buffer) => {
      text += part.toString();
      if (!pattern.test(text)) return;
      clearTimeout(patience);
      resolve(text);
    });
    child.once('exit', () => {
      clearTimeout(patience);
      reject(new Error(`${child.spawnfile} ended:\n${text}`));
    });
  });
}

export async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as { port: number };
  server.close();
  await once(server, 'close');
  return port;
}

export function newFolder(): { readonly path: string; remove(): void } {
  const path = mkdtempSync(join(tmpdir(), 'bent-straw-engine-'));
  return { path, remove: () => rmSync(path, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 }) };
}

/**
 * A way to a port on loopback: directly, or, where that loopback is a namespace's, over a Unix socket, which no namespace
 * holds back.
 */
export async function wayTo(
  netns: string | null,
  port: number,
  folder: string,
): Promise<{ readonly endpoint: Endpoint; stop(): Promise<void> }> {
  if (netns === null) return { endpoint: { port, socketPath: null }, stop: () => Promise.resolve() };
  const socketPath = join(folder, `way-${port}`);
  const script = join(process.cwd(), 'e2e/engines/relay.mjs');
  const relay = startEngineProcess(netns, process.execPath, [script, socketPath, String(port)]);
  await said(relay, 'stderr', /ready/);
  return { endpoint: { port, socketPath }, stop: () => relay.stop() };
}

/** Tries until it succeeds: a driver needs a moment before it listens. */
export async function untilUp<Value>(attempt: () => Promise<Value>): Promise<Value> {
  const untilMs = performance.now() + PATIENCE_MS;
  for (;;) {
    try {
      return await attempt();
    } catch (error) {
      if (performance.now() > untilMs) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}
