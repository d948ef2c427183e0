import { readFileSync } from 'node:fs';

/** Resident memory of processes together, bytes. */
export function memoryOf(pids: readonly number[]): number {
  return pids.reduce((sum, pid) => {
    const [, kB] = /VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
    return sum + Number(kB) * 1024;
  }, 0);
}
