import type { DeviceKind } from './device-kind';

export interface ProposedDevice {
  readonly name: string;
  readonly kind: DeviceKind | null;
}

/** What a browser says of its machine (User-Agent, RFC 9110 §10.1.5), the more telling signs first. */
const SIGNS: readonly (readonly [RegExp, string, DeviceKind | null])[] = [
  [/iPad/, 'iPad', 'tablet'],
  [/iPhone/, 'iPhone', 'phone'],
  [/Android.*Mobile/, 'Android phone', 'phone'],
  [/Android/, 'Android tablet', 'tablet'],
  [/CrOS/, 'Chromebook', 'laptop'],
  [/Windows NT/, 'Windows computer', null],
  [/Macintosh/, 'Mac', null],
  [/Linux/, 'Linux computer', null],
];

/** A name to begin with for a device that nobody has named, different from those that are taken. */
export function proposedDevice(userAgent: string, taken: readonly string[]): ProposedDevice {
  const sign = SIGNS.find(([pattern]) => pattern.test(userAgent));
  if (sign === undefined) return { name: '', kind: null };
  const [, name, kind] = sign;
  const used = new Set(taken.map((each) => each.toLocaleLowerCase()));
  const free = (number: number): string => {
    const candidate = number === 1 ? name : `${name} ${number}`;
    return used.has(candidate.toLocaleLowerCase()) ? free(number + 1) : candidate;
  };
  return { name: free(1), kind };
}
