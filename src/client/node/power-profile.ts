import { readFileSync } from 'node:fs';

const PROFILE_FILE = '/sys/firmware/acpi/platform_profile';

/** What tells that this machine saves power (Linux platform profile), in words; null when nothing does. */
export function powerSaving(): string | null {
  try {
    return readFileSync(PROFILE_FILE, 'utf8').trim() === 'low-power'
      ? 'the machine is set to save power (platform profile low-power)'
      : null;
  } catch {
    return null;
  }
}
