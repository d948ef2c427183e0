import { LINK_KINDS, type LinkKind } from '../domain/link';
import { REACHES } from '../domain/reach';
import { PROFILE_NAMES } from '../run/run-profiles';
import { isFigure, unitNamed, unitsOf, type ImportFigure, type ImportField } from './import-field';
import type { ImportFault, ImportReading, ReadLine } from './import-reading';
import { readMoment, type WallMoment } from './read-moment';
import { readNumber } from './read-number';

/** Where a wall clock is turned into a moment. `atOf`: ms; null: that hour was left out (daylight saving). */
export interface ImportClock {
  readonly nowMs: number;
  readonly atOf: (wall: WallMoment) => number | null;
}

/** Names in the record are no longer. */
const LONGEST_NAME = 120;
const LONGEST_NOTES = 2000;
/** A clock may be wrong by a day, and a zone by another. */
const AHEAD_MS = 2 * 24 * 3600_000;
/** Beyond these a unit was mistaken. */
const MOST: Readonly<Record<'rate' | 'delay' | 'share', number>> = { rate: 400e9, delay: 600_000, share: 1 };

const LINKS_AS_WRITTEN: readonly (readonly [RegExp, LinkKind])[] = [
  [/^(wired|cable|lan|ethernet|eth|copper|fib(er|re))$/, 'wired'],
  [/^(wi-?fi|wlan|wireless|air|radio)?[\s-]*2[.,]4([\s-]*ghz)?$/, 'wifi-2.4'],
  [/^(wi-?fi|wlan|wireless|air|radio)?[\s-]*5([\s-]*ghz)?$/, 'wifi-5'],
  [/^(wi-?fi|wlan|wireless|air|radio)?[\s-]*6([\s-]*ghz)?$/, 'wifi-6'],
  [/^(wi-?fi|wlan|wireless|air|radio)$/, 'wifi'],
  [/^(tunnel|vpn)$/, 'tunnel'],
];

/** A link as people write it; null where it is none that is known. */
export function linkAsWritten(text: string): LinkKind | null {
  const plain = text.trim().toLowerCase();
  return (
    LINK_KINDS.find((kind) => kind === plain) ?? LINKS_AS_WRITTEN.find(([pattern]) => pattern.test(plain))?.[1] ?? null
  );
}

const reachAsWritten = (text: string) => REACHES.find((each) => each === text.toLowerCase()) ?? null;
const profileAsWritten = (text: string) => PROFILE_NAMES.find((each) => each === text.toLowerCase()) ?? null;

/** Carries what is wrong with a line out of the reading of it. */
class LineFault extends Error {
  constructor(readonly fault: ImportFault) {
    super(fault.code);
  }
}
const refuse = (code: ImportFault['code'], field: ImportField | null, typed = ''): never => {
  throw new LineFault({ code, field, typed: typed.slice(0, 60) });
};

/** Blank, or one of the signs that files put where nothing was measured. */
const isNothing = (text: string) => /^(|-|–|—|n\/?a|null|none|nan)$/i.test(text);

class Line {
  constructor(
    private readonly cells: readonly string[],
    private readonly reading: ImportReading,
    private readonly clock: ImportClock,
  ) {}

  #written(field: ImportField): { readonly text: string; readonly unit: string | null } | null {
    const place = this.reading.columns.findIndex((column) => column?.field === field);
    if (place < 0) return null;
    const text = (this.cells[place] ?? '').trim();
    return isNothing(text) ? null : { text, unit: this.reading.columns[place]!.unit };
  }

  name(field: ImportField, most = LONGEST_NAME): string | null {
    const text = this.#written(field)?.text ?? null;
    // What a table calculator would take for a formula is led by an apostrophe in files of ours.
    const plain = text === null ? null : text.replace(/^'(?=[=+\-@])/, '');
    return plain !== null && plain.length > most ? refuse('name-long', field, plain) : plain;
  }

  choice<Value extends string>(field: ImportField, read: (text: string) => Value | null): Value | null {
    const text = this.#written(field)?.text ?? null;
    return text === null ? null : (read(text) ?? refuse('choice-unknown', field, text));
  }

  figure(field: ImportFigure): number | null {
    const written = this.#written(field);
    if (written === null || !isFigure(field)) return null;
    const units = unitsOf(field);
    const [, figure = written.text, behind = ''] =
      /^([-+\d.,'’\s\u00A0\u2009\u202FeE]*\d[.,]?)\s*(\D*)$/.exec(written.text) ?? [];
    const named = behind === '' ? written.unit : unitNamed(behind);
    const value = readNumber(figure, this.reading.decimals);
    const per = named === null ? undefined : units[named];
    if (value === null || per === undefined) return refuse('figure-unreadable', field, written.text);
    const most = MOST['Mb/s' in units ? 'rate' : 'ms' in units ? 'delay' : 'share'];
    const isDelay = 'ms' in units && field.startsWith('added');
    // Under load the delay may have been a little less than before.
    if ((value < 0 && !isDelay) || Math.abs(value * per) > most)
      return refuse('figure-impossible', field, written.text);
    return value * per;
  }

  moment(field: 'started' | 'ended'): number | null {
    const day = this.#written(field)?.text;
    if (day === undefined) return null;
    const time = field === 'started' ? this.#written('time')?.text : undefined;
    const text = time === undefined ? day : `${day} ${time}`;
    const read = readMoment(text, this.reading.dates) ?? refuse('moment-unreadable', field, text);
    const atMs = 'atMs' in read ? read.atMs : this.clock.atOf(read.wall);
    if (atMs === null) return refuse('moment-skipped', field, text);
    return atMs > this.clock.nowMs + AHEAD_MS ? refuse('moment-ahead', field, text) : atMs;
  }
}

const worst = (...values: readonly (number | null)[]) => {
  const known = values.filter((value) => value !== null);
  return known.length === 0 ? null : Math.max(...known);
};

/** One line of a file as a run. A line without any figure is none: a run that broke off has nothing to show. */
export function readImportLine(cells: readonly string[], reading: ImportReading, clock: ImportClock): ReadLine {
  const line = new Line(cells, reading, clock);
  const { otherwise } = reading;
  try {
    const downBps = line.figure('down');
    const upBps = line.figure('up');
    const idleMs = line.figure('idle');
    const jitterMs = line.figure('jitter');
    const addedDownMs = line.figure('addedDown');
    const addedUpMs = line.figure('addedUp');
    const addedMs = worst(line.figure('addedWorst'), addedDownMs, addedUpMs);
    const lossShare = line.figure('loss');
    if ([downBps, upBps, idleMs, jitterMs, addedMs, lossShare].every((value) => value === null))
      return { without: 'figures' };
    const startedAtMs = line.moment('started') ?? refuse('moment-missing', 'started');
    const endedAtMs = line.moment('ended');
    if (endedAtMs !== null && endedAtMs < startedAtMs) return refuse('ends-before', 'ended');
    const device = line.name('device') ?? otherwise.device;
    if (device === '') return refuse('device-missing', 'device');
    return {
      run: {
        startedAtMs,
        endedAtMs,
        device,
        spot: line.name('spot'),
        peer: line.name('peer') ?? '',
        line: line.name('line'),
        link: line.choice('link', linkAsWritten) ?? otherwise.link,
        reach: line.choice('reach', reachAsWritten) ?? otherwise.reach,
        profile: line.choice('profile', profileAsWritten),
        downBps,
        upBps,
        idleMs,
        jitterMs,
        addedDownMs,
        addedUpMs,
        addedMs,
        lossShare,
        notes: line.name('notes', LONGEST_NOTES) ?? '',
        tags: [...new Set((line.name('tags', LONGEST_NOTES) ?? '').split(/[\s,;]+/).filter((tag) => tag !== ''))],
        set: line.name('set'),
        id: line.name('id'),
      },
    };
  } catch (error) {
    if (error instanceof LineFault) return { fault: error.fault };
    throw error;
  }
}
