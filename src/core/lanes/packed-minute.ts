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

/** The requests of a packed minute; one that is cut short gives those that are whole. */
export function unpackMinute(fromMs: number, raw: Uint8Array): LaneEcho[] {
  const numbers: number[] = [];
  let [value, scale] = [0, 1];
  for (const byte of raw) {
    value += (byte % 0x80) * scale;
    if (byte >= 0x80) {
      scale *= 0x80;
      continue;
    }
    numbers.push(value);
    [value, scale] = [0, 1];
  }
  const echoes: LaneEcho[] = [];
  let steps = 0;
  for (let place = 0; place + 1 < numbers.length; place += 2) {
    steps += numbers[place]!;
    // What does not lie in the minute was not written by us.
    if (steps * TIME_STEP_MS >= MINUTE_MS) break;
    const rtt = numbers[place + 1]!;
    echoes.push({ atMs: fromMs + steps * TIME_STEP_MS, ms: rtt === 0 ? null : (rtt - 1) / RTT_STEPS_PER_MS });
  }
  return echoes;
}
