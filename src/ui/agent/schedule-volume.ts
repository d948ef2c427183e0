import { sizeWords } from '@/core';

/** What a schedule comes to. */
export interface ScheduleVolume {
  readonly runsAWeek: number;
  readonly devices: readonly string[];
  /** Null: not known. */
  readonly bytesAMonth: number | null;
  /** Places of which it is not known. */
  readonly without: number;
}

const MOST_NAMES = 4;

function deviceWords(devices: readonly string[]): string {
  if (devices.length <= MOST_NAMES) return devices.join(', ');
  return `${devices.slice(0, MOST_NAMES).join(', ')} and ${devices.length - MOST_NAMES} more`;
}

/** What a schedule comes to, in sentences. `named`: with the devices that it means. */
export function volumeWords({ runsAWeek, devices, bytesAMonth, without }: ScheduleVolume, named = true): string {
  if (devices.length === 0) return 'It means no device yet: it begins with the first agent that joins there.';
  const runs = `${runsAWeek} ${runsAWeek === 1 ? 'run' : 'runs'} a week${named ? ` by ${deviceWords(devices)}` : ''}`;
  if (bytesAMonth === null) return `${runs}. What they move is not known before the first of them.`;
  const some = without === 0 ? '' : `; of ${without} ${without === 1 ? 'place' : 'places'} it is not known yet`;
  return `${runs}; about ${sizeWords(bytesAMonth)} a month${some}.`;
}
