import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import * as z from 'zod';

/** As what device a console knows this machine, and the cookie that proves it; null in files of before. */
export interface KnownDevice {
  readonly id: string;
  readonly cookie: string | null;
}

const knownSchema = z.record(
  z.string(),
  z.union([
    z.object({ id: z.string(), cookie: z.string().nullable() }),
    z.string().transform((id): KnownDevice => ({ id, cookie: null })),
  ]),
);

/** Where programs of a user keep what they must remember (XDG base directories). */
export function stateFolder(): string {
  return join(process.env['XDG_STATE_HOME'] ?? join(homedir(), '.local', 'state'), 'bent-straw');
}

function readKnown(file: string): Record<string, KnownDevice> {
  try {
    return knownSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    // None yet, or not readable: the console then takes this machine for a new device.
    return {};
  }
}

/** As what device a console knows whoever runs. */
export interface DeviceMemory {
  of(origin: string, name: string): KnownDevice | null;
  remember(origin: string, name: string, device: KnownDevice): void;
}

/** Devices by console and name, kept in a file that only its user may read. */
export class KnownDevices implements DeviceMemory {
  constructor(private readonly file = join(stateFolder(), 'agent-devices.json')) {}

  of(origin: string, name: string): KnownDevice | null {
    return readKnown(this.file)[`${origin} ${name}`] ?? null;
  }

  /** Remembers, as far as the file can be written. */
  remember(origin: string, name: string, device: KnownDevice): void {
    const known = { ...readKnown(this.file), [`${origin} ${name}`]: device };
    try {
      mkdirSync(dirname(this.file), { recursive: true, mode: 0o700 });
      writeFileSync(`${this.file}.part`, `${JSON.stringify(known, null, 2)}\n`, { mode: 0o600 });
      renameSync(`${this.file}.part`, this.file);
    } catch {
      // Without it the next run asks for another name; this one is not lost.
    }
  }
}
