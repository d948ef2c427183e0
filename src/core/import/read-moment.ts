/** In which order a file writes a day. */
export const DATE_ORDERS = ['year-month-day', 'day-month-year', 'month-day-year'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

/** A moment as a clock on the wall shows it. Months from 1. */
export interface WallMoment {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
  readonly second: number;
  /** Minutes east of UTC where it was written with it (ISO 8601, RFC 3339); null: as the office's clock. */
  readonly offsetMinutes: number | null;
}

/** A moment that was read: on the wall, or in ms since 1970. */
export type ReadMoment = { readonly wall: WallMoment } | { readonly atMs: number };

const PLACES: Readonly<Record<DateOrder, readonly [year: number, month: number, day: number]>> = {
  'year-month-day': [0, 1, 2],
  'day-month-year': [2, 1, 0],
  'month-day-year': [2, 0, 1],
};
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
/** Seconds since 1970 have ten digits from 2001 to 2286, milliseconds thirteen. */
const SINCE_1970 = /^(\d{10}|\d{13})$/;
const DAY = /^(\d{1,4}|[A-Za-z]{3,9}\.?)[-./\s]+(\d{1,2}|[A-Za-z]{3,9}\.?),?[-./\s]+(\d{1,4})(?:[T,\s]\s*|$)/;
const TIME =
  /^(\d{1,2})(?::|h)(\d{2})(?::(\d{2}(?:[.,]\d{1,9})?))?\s*([AaPp]\.?[Mm]\.?)?\s*(Z|UTC|GMT|[+-]\d{2}:?\d{2})?$/;

function monthOf(text: string): number {
  if (/^\d+$/.test(text)) return Number(text);
  return MONTHS.findIndex((name) => text.toLowerCase().startsWith(name)) + 1;
}

function dayParts(found: readonly string[], order: DateOrder) {
  // Four digits in front are a year, and a month by its name is the month, whatever the order.
  const named = found.findIndex((part) => /[A-Za-z]/.test(part));
  const byName: DateOrder | null = named === 0 ? 'month-day-year' : named === 1 ? 'day-month-year' : null;
  const [year, month, day] = PLACES[found[0]!.length === 4 ? 'year-month-day' : (byName ?? order)];
  const written = Number(found[year]);
  return {
    year: found[year]!.length <= 2 ? 2000 + written : written,
    month: monthOf(found[month]!),
    day: Number(found[day]),
  };
}

function timeParts(text: string): Omit<WallMoment, 'year' | 'month' | 'day'> | null {
  if (text === '') return { hour: 0, minute: 0, second: 0, offsetMinutes: null };
  const [, hour, minute, second, half, zone] = TIME.exec(text) ?? [];
  if (hour === undefined || minute === undefined) return null;
  const isAfternoon = half === undefined ? null : half.toLowerCase().startsWith('p');
  const at = {
    hour: isAfternoon === null ? Number(hour) : (Number(hour) % 12) + (isAfternoon ? 12 : 0),
    minute: Number(minute),
    second: Number((second ?? '0').replace(',', '.')),
    offsetMinutes: offsetOf(zone),
  };
  const isTime = at.hour < 24 && at.minute < 60 && at.second < 61 && (isAfternoon === null || Number(hour) <= 12);
  return isTime ? at : null;
}

function offsetOf(zone: string | undefined): number | null {
  if (zone === undefined) return null;
  const [, sign, hours, minutes] = /^([+-])(\d{2}):?(\d{2})$/.exec(zone) ?? [];
  return sign === undefined ? 0 : (sign === '-' ? -1 : 1) * (60 * Number(hours) + Number(minutes));
}

/**
 * A moment as files write it: ISO 8601 and RFC 3339, a day in one of three orders with or without a time of the day, with
 * months as numbers or by their English names, or seconds or milliseconds since 1970. Null where it is none, or a day that
 * no calendar has.
 */
export function readMoment(text: string, order: DateOrder): ReadMoment | null {
  const written = text.trim();
  if (SINCE_1970.test(written)) return { atMs: Number(written) * (written.length === 10 ? 1000 : 1) };
  const found = DAY.exec(written);
  if (found === null) return null;
  const date = dayParts(found.slice(1, 4), order);
  const time = timeParts(written.slice(found[0].length).trim());
  if (time === null || date.month < 1 || date.month > 12 || date.year < 1990 || date.year > 2200) return null;
  const last = new Date(Date.UTC(date.year, date.month, 0)).getUTCDate();
  return date.day < 1 || date.day > last ? null : { wall: { ...date, ...time } };
}

/** The order in which most of some days can be read; of two that read as many the one that is written in more countries. */
export function likeliestOrder(texts: readonly string[]): DateOrder {
  const read = (order: DateOrder) => texts.filter((text) => readMoment(text, order) !== null).length;
  return DATE_ORDERS.reduce((best, order) => (read(order) > read(best) ? order : best));
}
