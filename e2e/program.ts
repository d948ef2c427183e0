import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newPort } from './ports';

const LAUNCHER = join(process.cwd(), 'dist/launch.js');
/** On two cores on which two other programs start as well. */
const PATIENCE_MS = 60_000;

export interface StartOptions {
  readonly mode: 'demo' | 'start';
  readonly port: number;
  readonly data: string;
  /** Further words of the command line. */
  readonly more?: readonly string[];
  /** Lets this machine be an agent; absent: it would be one device more on every board. */
  readonly agent?: boolean;
  /** Practice lines of a tenth of the rate: where no figure matters, a run need not keep the machine busy. */
  readonly slowLines?: boolean;
}

/** The real program, started for a test. */
export interface Program {
  readonly origin: string;
  /** The code that it printed; null when there is no office yet. */
  readonly code: string | null;
  readonly output: () => string;
  /** Process ids of the launcher's children whose command line holds a word. */
  readonly childrenWith: (word: string) => number[];
  /** As Ctrl-C does; resolves with the exit code. */
  interrupt(): Promise<number | null>;
  /** As a power cut does: every process at once, without a word. */
  killAll(): Promise<void>;
}

export function newDataFolder(): string {
  return mkdtempSync(join(tmpdir(), 'bent-straw-e2e-'));
}

function childrenOf(pid: number, word: string): number[] {
  try {
    return execFileSync('pgrep', ['-P', String(pid), '-f', word], { encoding: 'utf8' })
      .trim()
      .split('\n')
      .map(Number);
  } catch {
    return [];
  }
}

/** Starts the launcher and gathers what it prints; resolves when it has ended or printed what is waited for. */
export async function launch({ mode, port, data, more = [], agent = false }: StartOptions, until: RegExp) {
  const alone = mode === 'start' && !agent ? ['--no-agent'] : [];
  const args = [LAUNCHER, mode, '--port', String(port), '--data', data, ...alone, ...more];
  const child: ChildProcess = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  // Whoever started it may be interrupted.
  const last = () => child.kill('SIGINT');
  process.once('exit', last);
  child.once('exit', () => process.off('exit', last));
  let output = '';
  const ended = once(child, 'exit').then(([code]) => code as number | null);
  await new Promise<void>((resolve, reject) => {
    const patience = setTimeout(() => reject(new Error(`not ready in time:\n${output}`)), PATIENCE_MS);
    const settle = () => {
      clearTimeout(patience);
      resolve();
    };
    const gather = (part: Buffer) => {
      output += part.toString();
      if (until.test(output)) settle();
    };
    child.stdout!.on('data', gather);
    child.stderr!.on('data', gather);
    void ended.then(settle);
  });
  return { child, ended, output: () => output };
}

/** Names a folder that holds demo data as a first start makes them, for every program that a run of the tests starts. */
const TEMPLATE_VARIABLE = 'BENT_STRAW_DEMO_TEMPLATE';
let template: Promise<string> | null = null;

/** Demo data as a first start makes them, to be copied from then on: three weeks of history take seconds. */
export async function makeDemoTemplate(port = newPort()): Promise<string> {
  const data = newDataFolder();
  const { child, ended } = await launch({ mode: 'demo', port, data }, /Stop with Ctrl-C/);
  child.kill('SIGINT');
  await ended;
  process.env[TEMPLATE_VARIABLE] = data;
  return data;
}

function demoTemplate(): Promise<string> {
  const made = process.env[TEMPLATE_VARIABLE];
  template ??= made === undefined ? makeDemoTemplate() : Promise.resolve(made);
  return template;
}

/** The lines follow their file: what stands in it holds from then on. */
function slowDown(data: string): void {
  const file = join(data, 'practice-lines.json');
  const slowed = readFileSync(file, 'utf8').replace(
    /"rateMbps": ([\d.]+)/g,
    (_, mbps) => `"rateMbps": ${Number(mbps) / 10}`,
  );
  writeFileSync(file, slowed);
}

/** A data folder with the demo's data as a first start makes them. */
export async function newDemoFolder(): Promise<string> {
  const data = newDataFolder();
  cpSync(await demoTemplate(), data, { recursive: true });
  return data;
}

export async function startProgram(options: StartOptions): Promise<Program> {
  if (options.mode === 'demo' && readdirSync(options.data).length === 0)
    cpSync(await demoTemplate(), options.data, { recursive: true });
  const { child, ended, output } = await launch(options, /Stop with Ctrl-C/);
  if (child.exitCode !== null) throw new Error(`the program did not start:\n${output()}`);
  if (options.slowLines === true) slowDown(options.data);
  const pid = child.pid!;
  return {
    origin: `http://localhost:${options.port}`,
    code: /\(code (\w+)\)/.exec(output())?.[1] ?? null,
    output,
    childrenWith: (word) => childrenOf(pid, word),
    interrupt: () => {
      child.kill('SIGINT');
      return ended;
    },
    killAll: async () => {
      const pids = [pid, ...childrenOf(pid, 'dist/')];
      for (const each of pids) process.kill(each, 'SIGKILL');
      await ended;
    },
  };
}
