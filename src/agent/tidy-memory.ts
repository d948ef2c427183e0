import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** V8's own collection, which Node hands out only where it was started with a flag; null where there is none. */
function collection(): (() => void) | null {
  setFlagsFromString('--expose-gc');
  const collect: unknown = runInNewContext('typeof gc === "function" ? gc : null');
  return typeof collect === 'function' ? (collect as () => void) : null;
}

let collect: (() => void) | null | undefined;

/**
 * Gives back what a measurement took: an agent stands by for months beside other things, and V8 keeps what it was given until it
 * needs more. Takes some ten ms: to be called when nothing is measured.
 */
export function tidyMemory(): void {
  collect ??= collection();
  collect?.();
}
