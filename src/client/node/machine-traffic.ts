import { readFileSync } from 'node:fs';

/** Bytes that crossed all real interfaces of this machine since it started; null where the system does not tell. */
export interface MachineTraffic {
  readonly downBytes: number;
  readonly upBytes: number;
}

/** Reads /proc/net/dev (Linux): received bytes are the first figure of a line, sent bytes the ninth. Loopback is left out. */
export function readMachineTraffic(text: string): MachineTraffic {
  let downBytes = 0;
  let upBytes = 0;
  for (const line of text.split('\n').slice(2)) {
    const [name, figures] = line.split(':');
    if (figures === undefined || name!.trim() === 'lo') continue;
    const columns = figures.trim().split(/\s+/).map(Number);
    downBytes += columns[0] ?? 0;
    upBytes += columns[8] ?? 0;
  }
  return { downBytes, upBytes };
}

export function machineTraffic(): MachineTraffic | null {
  try {
    return readMachineTraffic(readFileSync('/proc/self/net/dev', 'utf8'));
  } catch {
    return null;
  }
}
