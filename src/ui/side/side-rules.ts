import type { KnownValues } from '@/core';

/** A tray as it is filled in. */
export interface TypedTray {
  readonly name: string;
  readonly query: string;
  /** Null: all that match. */
  readonly runIds: readonly string[] | null;
}

export interface SideRule {
  readonly words: string;
  /** What it needs, where that is missing. */
  readonly wants: string;
  readonly trays: (known: KnownValues) => readonly TypedTray[];
}

const MOST_SPOTS = 8;
const tray = (name: string, query: string): TypedTray => ({ name, query, runIds: null });
const quoted = (value: string) => `"${value.replaceAll('"', '')}"`;
/** The device is chosen by whoever goes on from the rule: the first one stands there. */
const ofDevice = ({ device }: KnownValues, query: string) =>
  device[0] === undefined ? query : `device=${quoted(device[0])} ${query}`;

/** Comparisons that are made again and again. */
export const SIDE_RULES: readonly SideRule[] = [
  {
    words: 'cable and 5 GHz of a device',
    wants: 'No device has measured here yet.',
    trays: (known) => [
      tray('', ofDevice(known, 'link=wired reach=internet')),
      tray('', ofDevice(known, 'link=5 reach=internet')),
    ],
  },
  {
    words: 'before and after a day',
    wants: '',
    trays: () => [tray('before', 'reach=internet last=4w until=yesterday'), tray('after', 'reach=internet from=today')],
  },
  {
    words: 'this week and the one before',
    wants: '',
    trays: () => [
      tray('the weeks before', 'reach=internet last=4w -last=7d'),
      tray('this week', 'reach=internet last=7d'),
    ],
  },
  {
    words: 'inside and out',
    wants: '',
    trays: (known) => [
      tray('', ofDevice(known, 'link=wired reach=local')),
      tray('', ofDevice(known, 'link=wired reach=internet')),
    ],
  },
  {
    words: 'all spots on 5 GHz',
    wants: 'Two spots with runs are needed for this.',
    trays: ({ spot }) => spot.slice(0, MOST_SPOTS).map((each) => tray(each, `spot=${quoted(each)} link=5 reach=local`)),
  },
];
