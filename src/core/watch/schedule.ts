import type { DeviceKind } from '../domain/device-kind';
import type { PeerReach } from '../domain/reach';

/** Days of the week, Monday is 0 (ISO 8601 counts from 1). */
export const WEEK = [0, 1, 2, 3, 4, 5, 6] as const;
const DAY_MINUTES = 24 * 60;

/** When on a day, in minutes since midnight of the office: every so often in a span, the end among them, or at certain times. */
export type TimesOfDay =
  | { readonly kind: 'every'; readonly minutes: number; readonly fromMinute: number; readonly untilMinute: number }
  | { readonly kind: 'at'; readonly minutes: readonly number[] };

export const SCHEDULED_PROFILES = ['quick', 'standard', 'thorough', 'single'] as const;
export type ScheduledProfile = (typeof SCHEDULED_PROFILES)[number];

/** When to measure what. */
export interface Schedule {
  readonly days: readonly number[];
  readonly times: TimesOfDay;
  readonly reaches: readonly PeerReach[];
  readonly profile: ScheduledProfile;
}

/** Whom it is for: one device, all agents at a spot, of a kind, or of the office. */
export type ScheduledFor =
  | { readonly kind: 'device'; readonly deviceId: string }
  | { readonly kind: 'spot'; readonly spotId: string }
  | { readonly kind: 'device-kind'; readonly deviceKind: DeviceKind }
  | { readonly kind: 'office' };

/** Why a time was missed. */
export const MISSED_WHYS = [
  ...(['console-off', 'away', 'hunt', 'round', 'budget', 'no-peer', 'refused', 'withdrawn', 'unfinished'] as const),
  ...(['no-turn', 'gone'] as const),
] as const;
export type MissedWhy = (typeof MISSED_WHYS)[number];

/** The least pause between two times: a run takes its time, and others want the line too. */
export const LEAST_EVERY_MINUTES = 5;

/** The minutes of a day at which it begins, in order. */
export function minutesOfDay(times: TimesOfDay): number[] {
  if (times.kind === 'at') return [...new Set(times.minutes)].sort((a, b) => a - b);
  const minutes: number[] = [];
  // Midnight at the end is that of the next day.
  for (let at = times.fromMinute; at <= Math.min(times.untilMinute, DAY_MINUTES - 1); at += times.minutes)
    minutes.push(at);
  return minutes;
}

/** How many times a week it measures, one for each reach. */
export function runsAWeek({ days, times, reaches }: Schedule): number {
  return days.length * minutesOfDay(times).length * reaches.length;
}

/** A day of a calendar; `dayMs`: its number of days since 1970 times a day, so that days can be counted. */
export interface CalendarDay {
  readonly year: number;
  /** From 1. */
  readonly month: number;
  readonly day: number;
}

const MINUTE_MS = 60_000;
const DAY_MS = DAY_MINUTES * MINUTE_MS;
/** More minutes than any calendar puts its clock forward or back in a day. */
const MOST_SHIFT = 180;
const numberOf = ({ year, month, day }: CalendarDay) => Date.UTC(year, month - 1, day) / DAY_MS;
const dayOf = (number: number): CalendarDay => {
  const date = new Date(number * DAY_MS);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() };
};
/** 1970 began on a Thursday. */
const weekdayOf = (number: number) => (((number + 3) % 7) + 7) % 7;

/** What a time zone knows. */
export interface ZoneClock {
  /** The calendar's day at an instant. */
  dayAt(atMs: number): CalendarDay;
  /** The instant of a time of a day; null where the clock skips it (that of two where it comes twice, the first). */
  instantOf(day: CalendarDay, minute: number): number | null;
}

/**
 * The instants of a schedule after `afterMs` until `untilMs`, in order. An hour that daylight saving leaves out is left out;
 * of one that it repeats the first counts.
 */
export function dueTimes({ days, times }: Schedule, clock: ZoneClock, afterMs: number, untilMs: number): number[] {
  const minutes = minutesOfDay(times);
  const due: number[] = [];
  const last = numberOf(clock.dayAt(untilMs));
  for (let number = numberOf(clock.dayAt(afterMs)); number <= last; number += 1) {
    if (!days.includes(weekdayOf(number))) continue;
    const day = dayOf(number);
    const beganMs = clock.instantOf(day, 0);
    // By the clock it may be an hour or two earlier or later: of the other minutes nothing need be asked.
    const [from, to] =
      beganMs === null
        ? [-Infinity, Infinity]
        : [(afterMs - beganMs) / MINUTE_MS - MOST_SHIFT, (untilMs - beganMs) / MINUTE_MS + MOST_SHIFT];
    for (const minute of minutes) {
      if (minute < from || minute > to) continue;
      const atMs = clock.instantOf(day, minute);
      if (atMs !== null && atMs > afterMs && atMs <= untilMs) due.push(atMs);
    }
  }
  return due;
}

/** FNV-1a, 32 bits: spreads equal things equally, without a memory. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let place = 0; place < text.length; place += 1)
    hash = Math.imul(hash ^ text.charCodeAt(place), 0x01000193) >>> 0;
  return hash;
}

/** How much later than due a device begins, ms: from 0 to under `spreadMinutes`, another at each time, the same when asked again. */
export function spreadMs(spreadMinutes: number, deviceId: string, dueAtMs: number): number {
  return (hashOf(`${deviceId} ${dueAtMs}`) / 2 ** 32) * spreadMinutes * 60_000;
}
