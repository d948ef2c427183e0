/** Rates in bits per second, delays in ms, loss a share from 0 to 1: what one of each unit is of those. */
const UNITS = {
  rate: { 'Gb/s': 1e9, 'Mb/s': 1e6, 'kb/s': 1e3, 'b/s': 1, 'GB/s': 8e9, 'MB/s': 8e6, 'kB/s': 8e3, 'B/s': 8 },
  delay: { ms: 1, s: 1000, µs: 0.001 },
  share: { '%': 0.01, 'of 1': 1 },
} as const satisfies Readonly<Record<string, Readonly<Record<string, number>>>>;

type Quantity = keyof typeof UNITS;

/** What a column of a foreign file may hold. A figure has a quantity; all else is text of one kind or another. */
export const IMPORT_FIELDS = {
  started: { kind: 'moment', about: 'when it began, or the day' },
  time: { kind: 'moment', about: 'the time of the day, beside the day' },
  ended: { kind: 'moment', about: 'when it ended' },
  device: { kind: 'name', about: 'name of the device' },
  spot: { kind: 'name', about: 'place in the building' },
  link: { kind: 'choice', about: 'cable, band or tunnel' },
  reach: { kind: 'choice', about: 'local, internet or tunnel' },
  peer: { kind: 'name', about: 'name of the far end' },
  line: { kind: 'name', about: 'the provider’s line' },
  profile: { kind: 'choice', about: 'how thorough' },
  down: { kind: 'figure', quantity: 'rate', about: 'download' },
  up: { kind: 'figure', quantity: 'rate', about: 'upload' },
  idle: { kind: 'figure', quantity: 'delay', about: 'delay while nothing runs' },
  jitter: { kind: 'figure', quantity: 'delay', about: 'jitter' },
  addedDown: { kind: 'figure', quantity: 'delay', about: 'what a download adds to the delay' },
  addedUp: { kind: 'figure', quantity: 'delay', about: 'what an upload adds to the delay' },
  addedWorst: { kind: 'figure', quantity: 'delay', about: 'what load adds at worst' },
  loss: { kind: 'figure', quantity: 'share', about: 'packets lost' },
  notes: { kind: 'name', about: 'what was written beside it' },
  tags: { kind: 'name', about: 'words that were put on it' },
  set: { kind: 'name', about: 'runs of one occasion have the same' },
  id: { kind: 'name', about: 'the run’s own id' },
} as const satisfies Readonly<Record<string, FieldKind>>;

type FieldKind =
  | { readonly kind: 'moment' | 'name' | 'choice'; readonly about: string }
  | { readonly kind: 'figure'; readonly about: string; readonly quantity: Quantity };

export type ImportField = keyof typeof IMPORT_FIELDS;
export const IMPORT_FIELD_NAMES = Object.keys(IMPORT_FIELDS) as [ImportField, ...ImportField[]];
export type ImportFigure = {
  [Name in ImportField]: (typeof IMPORT_FIELDS)[Name]['kind'] extends 'figure' ? Name : never;
}[ImportField];

const kindOf = (field: ImportField): FieldKind => IMPORT_FIELDS[field];

export function isFigure(field: ImportField): field is ImportFigure {
  return kindOf(field).kind === 'figure';
}

/** Units in which the figures of a column may be written, with what one is of the record's own; none for text. */
export function unitsOf(field: ImportField): Readonly<Record<string, number>> {
  const kind = kindOf(field);
  return kind.kind === 'figure' ? UNITS[kind.quantity] : {};
}

const AS_PEOPLE_WRITE: readonly (readonly [RegExp, string])[] = [
  [/\b(gbps|gbit\/?s?|gb\/s)\b/, 'Gb/s'],
  [/\b(mbps|mbit\/?s?|mb\/s)\b/, 'Mb/s'],
  [/\b(kbps|kbit\/?s?|kb\/s)\b/, 'kb/s'],
  [/\b(bps|bits?\/s|b\/s)\b/, 'b/s'],
  [/\b(ms|msec|milliseconds?)\b/, 'ms'],
  [/\b(us|µs|microseconds?)\b/, 'µs'],
  [/\b(s|sec|seconds?)\b/, 's'],
  [/%|\b(percent|pct)\b/, '%'],
];

/**
 * The unit that a heading or a cell names, as people write it; null where it names none. A capital B means bytes only where
 * it is written so (MB/s, MByte/s): "mbps" is bits, whatever its case.
 */
export function unitNamed(text: string): string | null {
  const bytes = /(?:^|[^A-Za-z])([kKMG]?)(?:B\/s|Bps|[Bb]ytes?(?:\/s| ?per s(?:ec(?:ond)?)?))(?![A-Za-z])/.exec(text);
  if (bytes !== null) return `${bytes[1]!.replace('K', 'k')}B/s`;
  const plain = text.toLowerCase().replace(/[_()[\]]/g, ' ');
  return AS_PEOPLE_WRITE.find(([pattern]) => pattern.test(plain))?.[1] ?? null;
}
