import { fork, type ChildProcess } from 'node:child_process';
import { resolve as pathOf } from 'node:path';
import type { ChildMessage, PartFacts } from './child-link';
import { ProgramFault } from '../faults/program-faults';

/** Pauses before a part is started again: soon the first time, and never long, for somebody waits for it. */
const FIRST_PAUSE_MS = 250;
const LONGEST_PAUSE_MS = 5000;
/** A part that lived for so long begins with the first pause again. */
const STEADY_AFTER_MS = 10_000;
/** One that has not said that it is ready by then is stopped and started anew. */
const READY_WITHIN_MS = 60_000;
const STOP_PATIENCE_MS = 3000;

/** A failure that a child reported about itself; its sentence is ready to be shown. */
export class PartFailure extends Error {
  constructor(
    readonly code: string,
    sentence: string,
  ) {
    super(sentence);
  }
}

/** One child process, started again when it dies, until it is stopped. */
export class Part {
  #child: ChildProcess | null = null;
  #stopping = false;
  #pauseMs = FIRST_PAUSE_MS;

  constructor(
    readonly name: string,
    private readonly file: string,
    private readonly args: readonly string[],
    private readonly onTrouble: (sentence: string) => void,
    /** What others must not read in its command line. */
    private readonly secrets: Readonly<Record<string, string>> = {},
  ) {}

  get pid(): number | undefined {
    return this.#child?.pid;
  }

  /** Resolves with what the child says when it is ready; rejects when it fails before. */
  start(): Promise<PartFacts> {
    return new Promise((resolve, reject) => {
      let ready = false;
      const startedMs = performance.now();
      const child = fork(pathOf(import.meta.dirname, this.file), this.args, {
        env: { ...process.env, ...this.secrets, NODE_ENV: 'production' },
      });
      this.#child = child;
      let failure: Error | null = null;
      const patience = setTimeout(() => child.kill('SIGKILL'), READY_WITHIN_MS);
      child.on('message', (message: ChildMessage) => {
        if (message.kind === 'failed') {
          failure = new PartFailure(message.code, message.sentence);
          return;
        }
        ready = true;
        clearTimeout(patience);
        resolve(message.facts);
      });
      child.on('error', (error) => (failure = error));
      // Decided when it has ended, however that came: until then nothing else can be started in its place.
      child.once('close', (code, signal) => {
        clearTimeout(patience);
        if (!ready) reject(failure ?? new ProgramFault('part-stopped', { part: this.name }));
        else if (!this.#stopping) this.#restart(signal ?? `exit code ${code}`, performance.now() - startedMs);
      });
    });
  }

  #restart(how: string, livedMs: number): void {
    if (livedMs > STEADY_AFTER_MS) this.#pauseMs = FIRST_PAUSE_MS;
    this.onTrouble(`The ${this.name} stopped (${how}). Starting it again.`);
    setTimeout(() => {
      if (this.#stopping) return;
      this.start().then(
        () => this.onTrouble(`The ${this.name} is back.`),
        (error: Error) => {
          this.onTrouble(error.message);
          if (!this.#stopping) this.#restart('it did not start', 0);
        },
      );
    }, this.#pauseMs);
    this.#pauseMs = Math.min(this.#pauseMs * 2, LONGEST_PAUSE_MS);
  }

  /** Ends the child: gently first, then not. */
  stop(): Promise<void> {
    this.#stopping = true;
    const child = this.#child;
    if (child === null || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
    return new Promise((resolve) => {
      const patience = setTimeout(() => child.kill('SIGKILL'), STOP_PATIENCE_MS);
      child.once('exit', () => {
        clearTimeout(patience);
        resolve();
      });
      child.kill('SIGTERM');
    });
  }
}
