/** Below the ports that Linux gives to clients, above those that the program and its tools use by themselves. */
const FIRST = 20_000;
const PER_WORKER = 400;
const WORKERS = 30;
/** A demo takes the ports after its own for its peers and practice lines. */
const PER_PROGRAM = 10;

let given = 0;

/**
 * The first of ten ports for one program of this worker. Workers side by side have ranges of their own, and so has one
 * that takes the place of another whose programs may still be ending.
 */
export function newPort(): number {
  const worker = Number(process.env['TEST_WORKER_INDEX'] ?? 0) % WORKERS;
  const port = FIRST + worker * PER_WORKER + (given % (PER_WORKER / PER_PROGRAM)) * PER_PROGRAM;
  given += 1;
  return port;
}
