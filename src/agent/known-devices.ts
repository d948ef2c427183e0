import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import { z } from 'zod';

const knownSchema = z.record(z.string(), z.string());

/** Where programs of a user keep what they must remember (XDG base directories). */
export function stateFolder(): string {
  return join(process.env['XDG_STATE_HOME'] ?? join(homedir(), '.local', 'state'), 'bent-straw');
}

function readKnown(file: string): Record<string, string> {
  try {
    return knownSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    // None yet, or not readable: the console then takes this machine for a new device.
    return {};
  }
}

/** As what device a console knows whoever runs. */
export interface DeviceMemory {
  idOf(origin: string, name: string): string | null;
  remember(origin: string, name: string, deviceId: string): void;
}

/** Device ids by console and name, kept in a file of the user. */
export class KnownDevices implements DeviceMemory {
  constructor(private readonly file = join(stateFolder(), 'agent-devices.json')) {}

  idOf(origin: string, name: string): string | null {
    return readKnown(this.file)[`${origin} ${name}`] ?? null;
  }

  /** Remembers, as far as the file can be written. */
  remember(origin: string, name: string, deviceId: string): void {
    const known = { ...readKnown(this.file), [`${origin} ${name}`]: deviceId };
    try {
      mkdirSync(dirname(this.file), { recursive: true });
      writeFileSync(this.file, `${JSON.stringify(known, null, 2)}\n`);
    } catch {
      // Without it the next run asks for another name; this one is not lost.
    }
  }
}
