/**
 * The one place where quantities become words.
 * Rates are bits per second (SI), delays milliseconds, sizes bytes (SI).
 * An unknown figure is said to be unknown; it never reads as 0.
 */

export const UNKNOWN_WORDS = 'not measured';

const MEGA = 1e6;

/** Digits after the point so that about three figures are shown: 9.41, 93.8, 486. */
function decimalsFor(value: number): number {
  const size = Math.abs(value);
  if (size < 9.995) return 2;
  if (size < 99.95) return 1;
  return 0;
}

/** A rate without its unit, in Mb/s: 93_800_000 → "93.8". */
export function rateFigure(rateBps: number | null): string {
  if (rateBps === null) return '–';
  const mbps = rateBps / MEGA;
  return mbps.toFixed(decimalsFor(mbps));
}

/** Both ends of a rate that is no one figure, without the unit: "8.20–17.9". */
export function rangeFigure({ low, high }: { readonly low: number; readonly high: number }): string {
  return `${rateFigure(low)}–${rateFigure(high)}`;
}

/** A rate with its unit: 93_800_000 → "93.8 Mb/s". */
export function rateWords(rateBps: number | null): string {
  return rateBps === null ? UNKNOWN_WORDS : `${rateFigure(rateBps)} Mb/s`;
}

/** A contracted or negotiated rate, shown as written in the contract: 500_000_000 → "500", 2_500_000 → "2.5". */
export function nominalRateFigure(rateBps: number): string {
  return String(Number((rateBps / MEGA).toFixed(3)));
}

/** The same rate in bytes, for a person who thinks in files: 93_800_000 → "11.7 MB/s". */
export function byteRateWords(rateBps: number | null): string {
  if (rateBps === null) return UNKNOWN_WORDS;
  const megabytes = rateBps / 8 / MEGA;
  return `${megabytes.toFixed(decimalsFor(megabytes))} MB/s`;
}

/** A clock of this step or finer tells every delay that is shown here, ms. */
const FINE_STEP_MS = 0.2;

/**
 * A delay without its unit, in ms: one decimal below 10 ms. A delay below the step of a coarse clock is not told by it:
 * (0.3, 1) → "<1".
 */
export function delayFigure(delayMs: number | null, clockStepMs: number | null = null): string {
  if (delayMs === null) return '–';
  if (clockStepMs !== null && clockStepMs > FINE_STEP_MS && Math.abs(delayMs) < clockStepMs)
    return `<${Number(clockStepMs.toFixed(1))}`;
  const shown = Math.abs(delayMs) < 9.95 ? delayMs.toFixed(1) : delayMs.toFixed(0);
  return shown === '-0.0' ? '0.0' : shown;
}

/** A delay with its unit: 14.2 → "14 ms"; by a clock of 1 ms, 0.3 → "under 1 ms". */
export function delayWords(delayMs: number | null, clockStepMs: number | null = null): string {
  return delayMs === null ? UNKNOWN_WORDS : `${delayFigure(delayMs, clockStepMs).replace('<', 'under ')} ms`;
}

/** Added delay with its sign: 212 → "+212 ms". */
export function addedDelayWords(addedMs: number | null): string {
  if (addedMs === null) return UNKNOWN_WORDS;
  const figure = delayFigure(addedMs);
  return `${addedMs >= 0 ? '+' : ''}${figure} ms`;
}

/** A ratio as a percentage: 0.942 → "94 %". */
export function shareWords(ratio: number | null): string {
  return ratio === null ? UNKNOWN_WORDS : `${(ratio * 100).toFixed(0)} %`;
}

/** An amount of data: 312_000_000 → "312 MB". */
export function sizeWords(sizeBytes: number | null): string {
  if (sizeBytes === null) return UNKNOWN_WORDS;
  if (sizeBytes >= 1e9) return `${(sizeBytes / 1e9).toFixed(decimalsFor(sizeBytes / 1e9))} GB`;
  if (sizeBytes >= MEGA) return `${(sizeBytes / MEGA).toFixed(decimalsFor(sizeBytes / MEGA))} MB`;
  return `${Math.round(sizeBytes / 1000)} kB`;
}

/** How long ago, in the coarsest unit that still tells: 95_000 → "1 min". */
export function ageWords(ageMs: number): string {
  const minutes = Math.floor(ageMs / 60_000);
  if (minutes < 1) return 'now';
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 24) return `${hours} h`;
  const days = Math.floor(hours / 24);
  if (days < 60) return `${days} d`;
  return `${Math.floor(days / 30)} months`;
}

/** How long ago something was, as the end of a sentence: "just now", "24 min ago". */
export function agoWords(ms: number): string {
  const age = ageWords(ms);
  return age === 'now' ? 'just now' : `${age} ago`;
}

/** A length of time in words, to two places: "47 s", "12 min", "3 h 20 min", "2 d 4 h". */
export function durationWords(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 90) return `${minutes} min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 48) return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
  return hours % 24 === 0 ? `${Math.floor(hours / 24)} d` : `${Math.floor(hours / 24)} d ${hours % 24} h`;
}

/** A number of things: (1, 'run') → "1 run", (3, 'run') → "3 runs". */
export const countWords = (number: number, noun: string): string => `${number} ${noun}${number === 1 ? '' : 's'}`;
