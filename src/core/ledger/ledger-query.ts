import { fieldNamed, kindOfField, LEDGER_FIELD_NAMES, type FieldOf, type LedgerField } from './ledger-field';

/** One thing that must hold of a run. `not`: it must not. Figures in the record's own unit, times in ms. */
export type LedgerTerm = { readonly not: boolean } & (
  | { readonly is: 'words'; readonly text: string }
  | { readonly is: 'text'; readonly field: FieldOf<'text'>; readonly texts: readonly string[] }
  | { readonly is: 'choice'; readonly field: FieldOf<'choice'>; readonly values: readonly string[] }
  | {
      readonly is: 'figure';
      readonly field: FieldOf<'figure'>;
      /** Null: no end. */
      readonly low: number | null;
      readonly high: number | null;
      /** Whether the ends themselves are meant too. */
      readonly withEnds: boolean;
    }
  | { readonly is: 'time'; readonly fromMs: number | null; readonly untilMs: number | null }
  /** Hours of the day at the office, from `from` on and before `until`; through midnight where that is the smaller. */
  | { readonly is: 'hours'; readonly from: number; readonly until: number; readonly offsets: readonly ZoneOffset[] }
  | { readonly is: 'id'; readonly field: FieldOf<'id'>; readonly id: string }
  /** Never typed: an address may name a device by its id. */
  | { readonly is: 'device-id'; readonly id: string }
  /** Never typed: runs that were chosen by hand. */
  | { readonly is: 'run-ids'; readonly ids: readonly string[] }
);

export const QUERY_FAULTS = [
  'field-unknown',
  'value-unknown',
  'figure-unreadable',
  'day-unreadable',
  'value-missing',
] as const;
/** What was typed and means nothing; the rest holds all the same. `known`: what would mean something. */
export interface QueryFault {
  readonly code: (typeof QUERY_FAULTS)[number];
  readonly typed: string;
  readonly field: LedgerField | null;
  readonly known: readonly string[];
}

export interface LedgerQuery {
  readonly terms: readonly LedgerTerm[];
  readonly faults: readonly QueryFault[];
}

/** How days are read: `startOf` a day as it is typed, in ms (null: it is none); `dayAfter` that start. */
export interface DayReading {
  readonly nowMs: number;
  readonly startOf: (typed: string) => number | null;
  readonly dayAfter: (startMs: number) => number;
  /** How clocks go at the office, period by period; the last one has no end. */
  readonly offsets: readonly ZoneOffset[];
}

/** Minutes that clocks are ahead of UTC until a moment, ms; null: from then on. */
export interface ZoneOffset {
  readonly untilMs: number | null;
  readonly minutes: number;
}

/** A word as it was typed. `from`, `to`: where it stands in the text. */
export interface TypedWord {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** The words of a query: parted by spaces, but what stands in quotes is one. */
export function wordsTyped(text: string): TypedWord[] {
  return [...text.matchAll(/(?:"[^"]*(?:"|$)|[^\s"])+/g)].map((found) => ({
    ...{ from: found.index, to: found.index + found[0].length, text: found[0] },
  }));
}

const unquoted = (text: string) => text.replaceAll('"', '').trim();
const TERM = /^(-?)([A-Za-z]+)(!=|<=|>=|=|<|>)(.*)$/s;
const SPAN_MS: Readonly<Record<string, number>> = { h: 3600_000, d: 24 * 3600_000, w: 7 * 24 * 3600_000 };

/** Values beside each other, any of which will do. */
function valuesOf(text: string): string[] {
  const parts = text.match(/(?:"[^"]*(?:"|$)|[^,"])+/g) ?? [];
  return parts.map(unquoted).filter((value) => value !== '');
}

type Read = LedgerTerm | QueryFault;
const isFault = (read: Read): read is QueryFault => 'code' in read;

interface Typed {
  readonly field: LedgerField;
  readonly sign: string;
  readonly value: string;
  readonly not: boolean;
  readonly typed: string;
}

function faultOf({ field, typed }: Typed, code: QueryFault['code'], known: readonly string[] = []): QueryFault {
  return { code, typed, field, known };
}

function choiceTerm(of: Typed): Read {
  const kind = kindOfField(of.field);
  const choices = kind.kind === 'choice' ? kind.choices : [];
  const values = valuesOf(of.value).map((value) => choices.find(([typed]) => typed === value.toLowerCase())?.[1]);
  if (values.some((value) => value === undefined))
    return faultOf(
      of,
      'value-unknown',
      choices.map(([typed]) => typed),
    );
  return { is: 'choice', field: of.field as FieldOf<'choice'>, values: values as string[], not: of.not };
}

const numberOf = (text: string) =>
  /^\d+(?:[.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : null;

function figureTerm(of: Typed): Read {
  const { sign, value, not } = of;
  const kind = kindOfField(of.field);
  const perUnit = kind.kind === 'figure' ? kind.perUnit : 1;
  const [first, second, ...more] = value.split('..');
  const [low, high] = [numberOf(first ?? ''), second === undefined ? null : numberOf(second)];
  if (low === null || more.length > 0 || (second !== undefined && (high === null || sign !== '=')))
    return faultOf(of, 'figure-unreadable');
  const term = { is: 'figure', field: of.field as FieldOf<'figure'>, not } as const;
  const at = low * perUnit;
  if (sign === '=')
    // A figure as it is written stands for all that is rounded to it.
    return high === null
      ? {
          ...term,
          low: (low - roundingOf(first!)) * perUnit,
          high: (low + roundingOf(first!)) * perUnit,
          withEnds: true,
        }
      : { ...term, low: at, high: high * perUnit, withEnds: true };
  const withEnds = sign.endsWith('=');
  return sign.startsWith('<') ? { ...term, low: null, high: at, withEnds } : { ...term, low: at, high: null, withEnds };
}

/** Half of the last place that is written. */
function roundingOf(text: string): number {
  const decimals = /[.,](\d+)$/.exec(text.trim())?.[1]?.length ?? 0;
  return 0.5 * 10 ** -decimals;
}

function dayTerm(of: Typed, { startOf, dayAfter }: DayReading): Read {
  const startMs = startOf(unquoted(of.value));
  if (startMs === null) return faultOf(of, 'day-unreadable');
  const untilMs = dayAfter(startMs);
  const [fromMs, endMs] = { on: [startMs, untilMs], from: [startMs, null], until: [null, untilMs] }[
    of.field as FieldOf<'day'>
  ] as [number | null, number | null];
  return { is: 'time', fromMs, untilMs: endMs, not: of.not };
}

function spanTerm(of: Typed, { nowMs }: DayReading): Read {
  const [, count, unit] = /^(\d{1,4})([hdw])$/i.exec(of.value.trim()) ?? [];
  if (count === undefined || unit === undefined) return faultOf(of, 'day-unreadable', ['24h', '7d', '4w']);
  return { is: 'time', fromMs: nowMs - Number(count) * SPAN_MS[unit.toLowerCase()]!, untilMs: null, not: of.not };
}

function hoursTerm(of: Typed, { offsets }: DayReading): Read {
  const [, first, last] = /^(\d{1,2})(?::00)?(?:\.\.(\d{1,2})(?::00)?)?$/.exec(of.value.trim()) ?? [];
  const from = Number(first);
  const until = last === undefined ? (from + 1) % 24 : Number(last) % 24;
  if (first === undefined || from > 23 || Number(last ?? 0) > 24 || from === until)
    return faultOf(of, 'day-unreadable', ['19..22', '22..6', '9']);
  return { is: 'hours', from, until, offsets, not: of.not };
}

function termOf(of: Typed, days: DayReading): Read {
  if (unquoted(of.value) === '') return faultOf(of, 'value-missing');
  const kind = kindOfField(of.field).kind;
  if (of.sign !== '=' && kind !== 'figure') return faultOf(of, 'figure-unreadable');
  switch (kind) {
    case 'text':
      return { is: 'text', field: of.field as FieldOf<'text'>, texts: valuesOf(of.value), not: of.not };
    case 'choice':
      return choiceTerm(of);
    case 'figure':
      return figureTerm(of);
    case 'day':
      return dayTerm(of, days);
    case 'hours':
      return hoursTerm(of, days);
    case 'span':
      return spanTerm(of, days);
    case 'id':
      return { is: 'id', field: of.field as FieldOf<'id'>, id: unquoted(of.value), not: of.not };
  }
}

function readWord(text: string, days: DayReading): Read | null {
  const [, minus, name, sign, value] = TERM.exec(text) ?? [];
  if (name === undefined || sign === undefined || value === undefined) {
    const not = text.startsWith('-') && text.length > 1;
    const plain = unquoted(not ? text.slice(1) : text);
    return plain === '' ? null : { is: 'words', text: plain, not };
  }
  const field = fieldNamed(name);
  if (field === null) return { code: 'field-unknown', typed: text, field: null, known: LEDGER_FIELD_NAMES };
  const not = (minus === '-') !== (sign === '!=');
  return termOf({ field, sign: sign === '!=' ? '=' : sign, value, not, typed: text }, days);
}

/**
 * What was typed into the ledger's field: words that a run's names, notes or tags must hold, and terms such as
 * `verdict=starved,thin`, `down<100`, `added=75..200`, `from=12.11.2026`, `device="press desk"`; a minus before one turns
 * it round. All must hold. What means nothing is told, and left out.
 */
export function readLedgerQuery(text: string, days: DayReading): LedgerQuery {
  const read = wordsTyped(text).flatMap((word) => readWord(word.text, days) ?? []);
  return { terms: read.filter((each) => !isFault(each)) as LedgerTerm[], faults: read.filter(isFault) };
}
