import { StoreFault } from '@/store';
import { ProgramFault } from './program-faults';

/** Turns what kept a database from being opened into a fault with the way out. */
export function storeFault(error: unknown, folder: string): ProgramFault {
  if (error instanceof ProgramFault) return error;
  if (error instanceof StoreFault)
    return new ProgramFault(error.code, { folder, reason: error.reason, copy: `${folder}/backups/NAME` });
  return new ProgramFault('store-failed', { folder, reason: (error as Error).message });
}
