import type { ImportReading } from '@/core';
import type { ConsoleContext } from '../console/console-context';
import type { ImportCheck } from './check-import';
import type { ImportShape } from './import-file';

/** A file that somebody is about to bring in: received a part at a time, looked at, then taken in or thrown away. */
export interface OpenImport {
  readonly id: string;
  readonly siteId: string;
  readonly fileName: string;
  /** Where it lies meanwhile. */
  readonly file: string;
  readonly bytes: number;
  receivedBytes: number;
  /** Set once all of it is there. */
  whole: {
    readonly sha256: string;
    readonly shape: ImportShape;
    /** Of each column its first cells that are not blank. */
    readonly examples: readonly (readonly string[])[];
    readonly guess: ImportReading;
  } | null;
  /** What is being done with it; null: nothing. */
  job: { readonly what: 'check' | 'take-in'; readonly abort: AbortController; readBytes: number } | null;
  check: ImportCheck | null;
  touchedMs: number;
}

/** Whoever opens a file and goes away leaves it for so long, ms. */
const LEFT_MS = 3600_000;
/** At a time; each may be 50 MB. */
export const MOST_OPEN_IMPORTS = 6;

/** Files that are open, in memory: a console that ends forgets them. */
export class OpenImports {
  readonly #open = new Map<string, OpenImport>();

  get(id: string): OpenImport | null {
    return this.#open.get(id) ?? null;
  }

  /** False: too many are open. */
  add(each: OpenImport): boolean {
    if (this.#open.size >= MOST_OPEN_IMPORTS) return false;
    this.#open.set(each.id, each);
    return true;
  }

  /** Stops what is being done with it, and forgets it. */
  forget(id: string): OpenImport | null {
    const each = this.get(id);
    each?.job?.abort.abort();
    this.#open.delete(id);
    return each;
  }

  left(nowMs: number): OpenImport[] {
    return [...this.#open.values()].filter(({ job, touchedMs }) => job === null && touchedMs < nowMs - LEFT_MS);
  }
}

const opened = new WeakMap<ConsoleContext['changes'], OpenImports>();

/** Those of a console, for as long as it is open. */
export function openImportsOf({ changes }: Pick<ConsoleContext, 'changes'>): OpenImports {
  let known = opened.get(changes);
  if (known === undefined) opened.set(changes, (known = new OpenImports()));
  return known;
}
