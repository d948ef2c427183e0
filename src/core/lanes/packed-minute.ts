import { MINUTE_MS, type LaneEcho, type LaneFigures } from './lane';

/** How many of the requests that were not answered are known to have been lost on which way. */
export type LostByWay = Pick<LaneFigures, 'lostThere' | 'lostBack'>;
export const WAY_UNKNOWN: LostByWay = { lostThere: 0, lostBack: 0 };

/** A round trip is kept in steps of 10 µs; when it was sent in steps of 10 ms. */
const RTT_STEPS_PER_MS = 100;
const TIME_STEP_MS = 10;
const LAST_STEP = MINUTE_MS / TIME_STEP_MS - 1;
/** Two numbers of a minute. */
const MOST_WAYS_BYTES = 6;
const WAYS_FOLLOW = MINUTE_MS / TIME_STEP_MS;

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
 * 0 where nothing came back. Where it is known on which way requests were lost, the time of a whole minute follows, which no
 * request has, and then how many were lost on the way there and on the way back.
 */
export function packMinute(
  fromMs: number,
  echoes: readonly LaneEcho[],
  { lostThere, lostBack }: LostByWay = WAY_UNKNOWN,
): Uint8Array {
  const bytes: number[] = [];
  let beforeSteps = 0;
  for (const { atMs, ms } of echoes) {
    // What was sent in the last 5 ms of a minute is not of the next one.
    const steps = Math.max(beforeSteps, Math.min(LAST_STEP, Math.round((atMs - fromMs) / TIME_STEP_MS)));
    putNumber(bytes, steps - beforeSteps);
    putNumber(bytes, ms === null ? 0 : 1 + Math.round(Math.max(0, ms) * RTT_STEPS_PER_MS));
    beforeSteps = steps;
  }
  if (lostThere + lostBack > 0) for (const value of [WAYS_FOLLOW, lostThere, lostBack]) putNumber(bytes, value);
  return Uint8Array.from(bytes);
}

/**
 * Hears each request of a packed minute: when it was sent, ms after the minute's begin, and its round trip; null: none. Returns
 * on which way requests were lost, as far as that is known.
 */
export function eachRequest(raw: Uint8Array, hear: (afterMs: number, ms: number | null) => void): LostByWay {
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
      if (steps * TIME_STEP_MS >= MINUTE_MS) return lostByWay(raw.subarray(place + 1));
    } else hear(steps * TIME_STEP_MS, value === 0 ? null : (value - 1) / RTT_STEPS_PER_MS);
    isTime = !isTime;
    value = 0;
    scale = 1;
  }
  return WAY_UNKNOWN;
}

/** The two numbers at the end of a packed minute; what is cut short, or was not written by us, tells nothing. */
function lostByWay(rest: Uint8Array): LostByWay {
  const values: number[] = [];
  let [value, scale] = [0, 1];
  for (const byte of rest.subarray(0, MOST_WAYS_BYTES)) {
    value += (byte & 0x7f) * scale;
    scale *= 0x80;
    if (byte >= 0x80) continue;
    values.push(value);
    [value, scale] = [0, 1];
  }
  const [lostThere, lostBack] = values;
  return lostThere === undefined || lostBack === undefined ? WAY_UNKNOWN : { lostThere, lostBack };
}

/** The requests of a packed minute; one that is cut short gives those that are whole. */
export function unpackMinute(fromMs: number, raw: Uint8Array): LaneEcho[] {
  const echoes: LaneEcho[] = [];
  eachRequest(raw, (afterMs, ms) => echoes.push({ atMs: fromMs + afterMs, ms }));
  return echoes;
}
