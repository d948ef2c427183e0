import { MINUTE_MS, type LaneEcho } from './lane';

/** A round trip is kept in steps of 10 µs; when it was sent in steps of 10 ms. */
const RTT_STEPS_PER_MS = 100;
const TIME_STEP_MS = 10;
const LAST_STEP = MINUTE_MS / TIME_STEP_MS - 1;

function putNumber(bytes: number[], value: number): void {
  let rest = value;
  while (rest >= 0x80) {
    bytes.push((rest % 0x80) + 0x80);
    rest = Math.floor(rest / 0x80);
  }
  bytes.push(rest);
}

/**
 * The requests of a minute in the order of sending, two numbers each (LEB128, seven bits a byte, the low ones first): how long
 * after the one before it was sent, in 10 ms, the first one after the begin of the minute; and its round trip in 10 µs plus 1, or
 * 0 where nothing came back.
 */
export function packMinute(fromMs: number, echoes: readonly LaneEcho[]): Uint8Array {
  const bytes: number[] = [];
  let beforeSteps = 0;
  for (const { atMs, ms } of echoes) {
    // What was sent in the last 5 ms of a minute is not of the next one.
    const steps = Math.max(beforeSteps, Math.min(LAST_STEP, Math.round((atMs - fromMs) / TIME_STEP_MS)));
    putNumber(bytes, steps - beforeSteps);
    putNumber(bytes, ms === null ? 0 : 1 + Math.round(Math.max(0, ms) * RTT_STEPS_PER_MS));
    beforeSteps = steps;
  }
  return Uint8Array.from(bytes);
}

/** Hears each request of a packed minute: when it was sent, ms after the minute's begin, and its round trip; null: none. */
export function eachRequest(raw: Uint8Array, hear: (afterMs: number, ms: number | null) => void): void {
  let [value, scale, steps, isTime] = [0, 1, 0, true];
  // By its place: a day has 86 400 of them, and what iterates makes something for each.
  for (let place = 0; place < raw.length; place += 1) {
    const byte = raw[place]!;
    value += (byte & 0x7f) * scale;
    if (byte >= 0x80) {
      scale *= 0x80;
      continue;
    }
    if (isTime) {
      steps += value;
      // What does not lie in the minute was not written by us.
      if (steps * TIME_STEP_MS >= MINUTE_MS) return;
    } else hear(steps * TIME_STEP_MS, value === 0 ? null : (value - 1) / RTT_STEPS_PER_MS);
    isTime = !isTime;
    value = 0;
    scale = 1;
  }
}

/** The requests of a packed minute; one that is cut short gives those that are whole. */
export function unpackMinute(fromMs: number, raw: Uint8Array): LaneEcho[] {
  const echoes: LaneEcho[] = [];
  eachRequest(raw, (afterMs, ms) => echoes.push({ atMs: fromMs + afterMs, ms }));
  return echoes;
}
