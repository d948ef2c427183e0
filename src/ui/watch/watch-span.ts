import { durationWords } from '@/core';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** So much time, up to a moment; null: up to now, and on with it. */
export interface WatchSpan {
  readonly lengthMs: number;
  readonly untilMs: number | null;
}

export const LENGTHS: readonly (readonly [number, string])[] = [
  [5 * MINUTE_MS, '5 min'],
  [HOUR_MS, 'hour'],
  [6 * HOUR_MS, '6 h'],
  [DAY_MS, 'day'],
  [7 * DAY_MS, 'week'],
  [30 * DAY_MS, 'month'],
  [365 * DAY_MS, 'year'],
];
const [SHORTEST_MS, LONGEST_MS] = [MINUTE_MS, 400 * DAY_MS];

export const endOf = ({ untilMs }: WatchSpan, nowMs: number) => untilMs ?? nowMs;

/** Where its end would be in the future, it goes on with now instead. */
function held(lengthMs: number, untilMs: number, nowMs: number): WatchSpan {
  const length = Math.min(LONGEST_MS, Math.max(SHORTEST_MS, lengthMs));
  return { lengthMs: length, untilMs: untilMs >= nowMs ? null : untilMs };
}

/** So many times as long, with what lies at `share` of it (0: its begin, 1: its end) staying where it is. */
export function zoomed(span: WatchSpan, times: number, nowMs: number, share = 1): WatchSpan {
  const until = endOf(span, nowMs);
  const length = Math.min(LONGEST_MS, Math.max(SHORTEST_MS, span.lengthMs * times));
  const about = until - (1 - share) * span.lengthMs;
  return held(length, about + (1 - share) * length, nowMs);
}

/** Moved by a share of its length: back in time where that is less than 0. */
export function moved(span: WatchSpan, share: number, nowMs: number): WatchSpan {
  return held(span.lengthMs, endOf(span, nowMs) + share * span.lengthMs, nowMs);
}

export const spanWords = ({ lengthMs, untilMs }: WatchSpan) =>
  `${untilMs === null ? 'the last' : 'over'} ${durationWords(lengthMs / 1000)}`;

/** From an address: `?span=3600000&until=2026-11-24T14:10:00Z`. */
export function readSpan(length: string | undefined, until: string | undefined): WatchSpan {
  const lengthMs = Number(length);
  const untilMs = until === undefined ? NaN : Date.parse(until);
  return {
    lengthMs: lengthMs >= SHORTEST_MS && lengthMs <= LONGEST_MS ? lengthMs : HOUR_MS,
    untilMs: Number.isNaN(untilMs) ? null : untilMs,
  };
}

export function writeSpan({ lengthMs, untilMs }: WatchSpan): string {
  const until = untilMs === null ? '' : `&until=${new Date(untilMs).toISOString()}`;
  return `span=${Math.round(lengthMs)}${until}`;
}
