import { PEER_REACHES, type PeerReach } from '../domain/reach';
import {
  LEAST_EVERY_MINUTES,
  minutesOfDay,
  SCHEDULED_PROFILES,
  WEEK,
  type Schedule,
  type ScheduledProfile,
  type TimesOfDay,
} from './schedule';

const DAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
const LAST_MINUTE = 24 * 60;

/** What of a sentence means nothing, and what would. */
export interface ScheduleFault {
  readonly text: string;
  readonly sentence: string;
}

export type ReadSchedule =
  | { readonly ok: true; readonly schedule: Schedule }
  | { readonly ok: false; readonly faults: readonly ScheduleFault[] };

const TIME = String.raw`(\d{1,2})(?:[:.h](\d{2}))?`;
const one = new RegExp(`^${TIME}$`);

/** Minutes since midnight of "7", "07:30" or "7.30"; null: no time of a day. "24" is the end of the day. */
function readTime(text: string): number | null {
  const found = one.exec(text.trim());
  if (found === null) return null;
  const [hours, minutes] = [Number(found[1]), Number(found[2] ?? 0)];
  const all = hours * 60 + minutes;
  return minutes < 60 && all <= LAST_MINUTE ? all : null;
}

/** The day that a word begins: three letters are enough. */
function readDay(word: string): number | null {
  const place = DAY_NAMES.findIndex((name) => {
    const plain = word.toLowerCase().replace(/s$/, '');
    return plain.length >= 3 && name.toLowerCase().startsWith(plain);
  });
  return place === -1 ? null : place;
}

function readDays(clause: string): readonly number[] | null {
  const text = clause.toLowerCase().replace(/^on /, '');
  if (/^(every day|daily|all days)$/.test(text)) return WEEK;
  if (/^(weekdays|workdays|working days)$/.test(text)) return WEEK.slice(0, 5);
  if (/^weekends?$/.test(text)) return WEEK.slice(5);
  const span = /^(\w+)\s*(?:to|-|–|until)\s*(\w+)$/.exec(text);
  if (span !== null) {
    const [from, until] = [readDay(span[1]!), readDay(span[2]!)];
    if (from === null || until === null) return null;
    // "Saturday to Monday" goes over the end of the week.
    return WEEK.filter((day) => (from <= until ? day >= from && day <= until : day >= from || day <= until));
  }
  const days = text.split(/\s+(?:and\s+)?/).map(readDay);
  return days.includes(null) ? null : [...new Set(days as number[])].sort((a, b) => a - b);
}

const UNIT = /^every (?:(\d+) )?(minutes?|mins?|hours?|h)(?: (?:from|between) (.+?) (?:to|until|and) (.+))?$/;

function readEvery(clause: string): TimesOfDay | string | null {
  const found = UNIT.exec(clause.toLowerCase());
  if (found === null) return null;
  const [, many, unit, from, until] = found;
  const minutes = Number(many ?? 1) * (unit!.startsWith('h') ? 60 : 1);
  if (minutes < LEAST_EVERY_MINUTES)
    return `More often than every ${LEAST_EVERY_MINUTES} minutes leaves the line no rest.`;
  if (minutes > LAST_MINUTE) return 'At most every 24 hours; for less say “at 12”, and on which days.';
  const fromMinute = from === undefined ? 0 : readTime(from);
  const untilMinute = until === undefined ? LAST_MINUTE : readTime(until);
  if (fromMinute === null || untilMinute === null) return 'Times are written like 7 or 7:30.';
  if (fromMinute >= untilMinute) return 'The end of the day’s part lies before its beginning.';
  return { kind: 'every', minutes, fromMinute, untilMinute };
}

/** Times of a day, one behind the other; null: a word of it is none. */
function readTimes(text: string): readonly number[] | null {
  const times = text.split(/\s+(?:and\s+)?/).map(readTime);
  return times.some((time) => time === null || time === LAST_MINUTE) ? null : (times as number[]);
}

function readAt(clause: string): readonly number[] | string | null {
  const found = /^at (.+)$/.exec(clause.toLowerCase());
  return found === null ? null : (readTimes(found[1]!) ?? 'Times are written like 7 or 7:30.');
}

const REACH_NAMES: Readonly<Record<string, PeerReach>> = { inside: 'local', outside: 'internet', out: 'internet' };

function readReaches(clause: string): readonly PeerReach[] | null {
  const words = clause.toLowerCase().split(/\s+(?:and\s+)?/);
  const reaches = words.map((word) => PEER_REACHES.find((reach) => reach === word) ?? REACH_NAMES[word] ?? null);
  return reaches.includes(null) ? null : PEER_REACHES.filter((reach) => reaches.includes(reach));
}

/**
 * Reads a sentence such as "every 20 minutes from 7 to 19, Monday to Friday, internet and tunnel, quick". Its parts come in
 * any order, between commas; without days it is every day, without a reach the internet, without a profile quick.
 */
export function readSchedule(sentence: string): ReadSchedule {
  const faults: ScheduleFault[] = [];
  let every: TimesOfDay | null = null;
  let at: number[] | null = null;
  let days: readonly number[] | null = null;
  let reaches: readonly PeerReach[] | null = null;
  let profile: ScheduledProfile | null = null;
  for (const text of sentence.split(/[,;]/).map((part) => part.trim().replace(/\s+/g, ' '))) {
    if (text === '') continue;
    const [readEach, readFirst] = [readEvery(text), readAt(text)];
    const more: readonly number[] | null = at === null ? null : readTimes(text.replace(/^and /i, ''));
    if (typeof readEach === 'string') faults.push({ text, sentence: readEach });
    else if (readEach !== null) every = readEach;
    else if (typeof readFirst === 'string') faults.push({ text, sentence: readFirst });
    else if (readFirst !== null) at = [...(at ?? []), ...readFirst];
    else if (more !== null) at = [...at!, ...more];
    else {
      const [asDays, asReaches] = [readDays(text), readReaches(text)];
      const asProfile = SCHEDULED_PROFILES.find((name) => name === text.toLowerCase()) ?? null;
      if (asDays !== null) days = [...(days ?? []), ...asDays];
      else if (asReaches !== null) reaches = [...(reaches ?? []), ...asReaches];
      else if (asProfile !== null) profile = asProfile;
      else faults.push({ text, sentence: 'That is no time, no day, no reach and no profile.' });
    }
  }
  if (every !== null && at !== null)
    faults.push({ text: sentence, sentence: 'Say either how often, or at which times; make two schedules for both.' });
  const times: TimesOfDay | null =
    every ?? (at === null ? null : { kind: 'at', minutes: minutesOfDay({ kind: 'at', minutes: at }) });
  if (times === null && faults.length === 0)
    faults.push({ text: sentence, sentence: 'Say when: “every 20 minutes from 7 to 19”, or “at 7, 12:30 and 18”.' });
  if (times === null || faults.length > 0) return { ok: false, faults };
  const some = days ?? WEEK;
  return {
    ok: true,
    schedule: {
      times,
      days: WEEK.filter((day) => some.includes(day)),
      reaches: PEER_REACHES.filter((reach) => (reaches ?? ['internet']).includes(reach)),
      profile: profile ?? 'quick',
    },
  };
}

const clock = (minute: number) => {
  const [hours, minutes] = [Math.floor(minute / 60), minute % 60];
  return minutes === 0 ? String(hours) : `${hours}:${String(minutes).padStart(2, '0')}`;
};

function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

function dayWords(days: readonly number[]): string {
  if (days.length === WEEK.length) return 'every day';
  const [first, last] = [days[0]!, days.at(-1)!];
  if (days.length > 2 && last - first === days.length - 1) return `${DAY_NAMES[first]} to ${DAY_NAMES[last]}`;
  return days.map((day) => DAY_NAMES[day]).join(' and ');
}

function timeWords(times: TimesOfDay): string {
  if (times.kind === 'at') return `at ${times.minutes.map(clock).join(' and ')}`;
  const { minutes, fromMinute, untilMinute } = times;
  const often = minutes % 60 === 0 ? (minutes === 60 ? 'hour' : `${minutes / 60} hours`) : `${minutes} minutes`;
  const whole = fromMinute === 0 && untilMinute === LAST_MINUTE;
  return `every ${often}${whole ? '' : ` from ${clock(fromMinute)} to ${clock(untilMinute)}`}`;
}

/** A schedule as it is said, and as it would be read again. */
export function scheduleWords({ times, days, reaches, profile }: Schedule): string {
  return [timeWords(times), dayWords(days), listed(reaches), profile].join(', ');
}
