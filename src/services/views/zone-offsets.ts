import { TZDate } from '@date-fns/tz';
import type { ZoneOffset } from '@/core';

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
/** No run is older. */
const FROM_MS = Date.UTC(2015, 0, 1);
const STEP_MS = 14 * DAY_MS;
const known = new Map<string, readonly ZoneOffset[]>();

/** How clocks went at a place since 2015 and will go within a year, period by period. `timeZone`: IANA name; null: this machine's. */
export function zoneOffsets(timeZone: string | null, nowMs: number): readonly ZoneOffset[] {
  const untilMs = Math.ceil((nowMs + 366 * DAY_MS) / STEP_MS) * STEP_MS;
  const key = `${timeZone} ${untilMs}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  const minutesAt = (atMs: number) =>
    -(timeZone === null ? new Date(atMs) : new TZDate(atMs, timeZone)).getTimezoneOffset();
  const offsets: ZoneOffset[] = [];
  let minutes = minutesAt(FROM_MS);
  for (let atMs = FROM_MS; atMs < untilMs; atMs += STEP_MS) {
    const later = minutesAt(atMs + STEP_MS);
    if (later === minutes) continue;
    // The minute from which the clock goes otherwise.
    let [low, high] = [atMs, atMs + STEP_MS];
    while (high - low > MINUTE_MS) {
      const middle = low + Math.floor((high - low) / 2 / MINUTE_MS) * MINUTE_MS;
      if (minutesAt(middle) === minutes) low = middle;
      else high = middle;
    }
    offsets.push({ untilMs: high, minutes });
    minutes = later;
  }
  const all = [...offsets, { untilMs: null, minutes }];
  known.set(key, all);
  return all;
}
