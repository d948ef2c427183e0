import { linkKindWords, REACHES, type LinkKind, type Reach } from '@/core';
import type { TimeSubject } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** Something that can be looked at over time. */
export interface ShownSubject {
  /** As it stands in an address: "line ID", or "DEVICE LINK REACH" with blanks between. */
  readonly key: string;
  readonly kind: 'line' | 'device';
  readonly name: string;
  /** Null of a line: its runs are counted when it is looked at. */
  readonly occasions: number | null;
}

const keyOfDevice = (deviceId: string, linkKind: string, reach: string) => `${deviceId} ${linkKind} ${reach}`;

/** A subject from an address; null: it names none. */
export function readSubject(key: string): TimeSubject | null {
  const [first, second, third] = key.split(' ');
  if (first === 'line' && second !== undefined && second !== '') return { lineId: second };
  if (
    first === undefined ||
    second === undefined ||
    third === undefined ||
    !(REACHES as readonly string[]).includes(third)
  )
    return null;
  return { deviceId: first, linkKind: second, reach: third as Reach };
}

/** Lines first, then the devices with the most occasions. */
export async function timeSubjectsOf({ store }: ConsoleContext, siteId: string): Promise<ShownSubject[]> {
  const [lines, devices] = await Promise.all([store.sites.linesOf(siteId), store.time.subjects(siteId)]);
  return [
    ...lines.map(({ id, name }) => ({ key: `line ${id}`, kind: 'line' as const, name, occasions: null })),
    ...devices.map(({ deviceId, deviceName, linkKind, reach, occasions }) => ({
      ...{ key: keyOfDevice(deviceId, linkKind, reach), kind: 'device' as const, occasions },
      name: `${deviceName}, ${linkKindWords(linkKind as LinkKind)}, ${reach}`,
    })),
  ];
}
