import { ProgramFault } from './program-faults';

/** Ends a command that failed with its sentence and code; a bug ends it with its trace. */
export function endWithFault(error: unknown): never {
  if (!(error instanceof ProgramFault)) throw error;
  console.error(`${error.message} [${error.code}]`);
  process.exit(1);
}
