import type { Availability } from '../lanes/availability';
import { isLoad, type LaneFigures, type LaneKind } from '../lanes/lane';
import type { BusyTime } from '../lanes/busy-times';
import type { MarkEffect } from '../lanes/mark-effect';
import type { MarkRate } from '../lanes/mark-rate';
import type { SlowTime } from '../lanes/slow-times';
import type { Fault } from '../lanes/whose-fault';
import { delayWords, durationWords, nominalRateFigure, rateFigure, rateWords, shareWords } from './quantity-words';

/** Whose a silence was, in a word for a list. */
export const FAULT_NAMES: Readonly<Record<Fault, string>> = {
  ours: 'ours',
  line: 'the line',
  theirs: 'theirs',
  inside: 'inside',
  'line-or-theirs': 'the line or theirs',
  unknown: 'not known',
};

/**
 * What was silent and whose fault it was: "gateway answered, nothing outside did: the line". `names`: of the lanes that were silent.
 * `air`: whether the machine's own link goes by air.
 */
export function faultWords(fault: Fault, names: readonly string[], air: boolean): string {
  const who = names.join(', ');
  switch (fault) {
    case 'ours':
      return `the gateway was silent too: ours, ${air ? 'by air' : 'by cable'}`;
    case 'line':
      return 'the gateway answered, nothing outside did: the line';
    case 'theirs':
      return `only ${who} was silent, others outside answered: theirs`;
    case 'inside':
      return `${who} was silent while the gateway answered: inside`;
    case 'line-or-theirs':
      return `the gateway answered, ${who} did not, and nothing else outside is watched: the line or theirs`;
    case 'unknown':
      return `${who} was silent; no gateway answers here that would tell whose fault it was`;
  }
}

/** "14:03:10, 42 s"; `clock`: the time of day at the office. */
export function outageLength(fromMs: number, untilMs: number | null, nowMs: number): string {
  return untilMs === null
    ? `goes on since ${durationWords((nowMs - fromMs) / 1000)}`
    : durationWords((untilMs - fromMs) / 1000);
}

/** What a lane says, with its unit: a delay, a load, or how a radio hears and sends. */
export function laneValueWords(kind: LaneKind, value: number | null): string {
  if (kind === 'signal') return value === null ? 'no signal' : `${(-value).toFixed(0)} dBm`;
  if (kind === 'retries') return value === null ? 'not known' : `${value.toFixed(value < 10 ? 1 : 0)} %`;
  return isLoad(kind) || kind === 'link-rate' ? rateWords(value === null ? null : value * 1e6) : delayWords(value);
}

/** How far two values of a lane lie apart, from least to most, and which way: "18 to 27 ms more". */
function apartWords(kind: LaneKind, least: number, most: number, grows: boolean): string {
  if (kind === 'signal') return `${least.toFixed(0)} to ${most.toFixed(0)} dB ${grows ? 'weaker' : 'stronger'}`;
  if (kind === 'retries') return `${least.toFixed(0)} to ${most.toFixed(0)} points ${grows ? 'more' : 'less'}`;
  return `${delayWords(least)} to ${delayWords(most)} ${grows ? 'more' : 'less'}`;
}

/** Ports are lanes each way; in a sentence they are ports. */
const portName = (name: string) => name.replace(/, (?:in|out)$/, '');
/** More is nearly all, as exactly as two devices count. */
const NEARLY_ALL = 0.95;

/** "84.0 of 100 Mb/s up were in use, nearly all of it over Archive box". */
export function busyWords({ way, mbps, ofMbps, port }: BusyTime): string {
  const use = `${rateFigure(mbps * 1e6)} of ${nominalRateFigure(ofMbps * 1e6)} Mb/s ${way} were in use`;
  if (port === null) return `${use}; no port that is watched carried half of it`;
  const share = port.mbps >= NEARLY_ALL * mbps ? 'nearly all' : rateFigure(port.mbps * 1e6);
  return `${use}, ${share} of it over ${portName(port.name)}`;
}

/** "3 of 60 lost: 2 there, 1 back", as far as it is known on which way. */
export function lossWords(
  lost: number,
  sent: number,
  { lostThere, lostBack }: Pick<LaneFigures, 'lostThere' | 'lostBack'>,
): string {
  const unknown = lost - lostThere - lostBack;
  const ways = [
    ...(lostThere > 0 ? [`${lostThere} there`] : []),
    ...(lostBack > 0 ? [`${lostBack} back`] : []),
    ...(unknown > 0 ? [`${unknown} not known where`] : []),
  ];
  const told = lostThere + lostBack > 0 ? `: ${ways.join(', ')}` : '';
  return `${lost} of ${sent} lost${told}`;
}

/** 0.99972 → "99.972 %": as many figures as tell it from all of the time. */
export function availabilityFigure(share: number): string {
  if (share === 1) return '100 %';
  const missing = 100 * (1 - share);
  const decimals = missing >= 1 ? 1 : missing >= 0.1 ? 2 : 3;
  return `${Math.min(100 * share, 100 - 10 ** -decimals).toFixed(decimals)} %`;
}

/** "the line was there 99.951 % of the watched time: silent for 42 s in one outage". */
export function availabilityWords({ share, silentMs, outages }: Availability): string {
  if (share === null) return 'nothing outside was watched';
  if (outages === 0) return 'the line was there all of the watched time';
  return `the line was there ${availabilityFigure(share)} of the watched time: silent for ${durationWords(silentMs / 1000)} in ${outages === 1 ? 'one outage' : `${outages} outages`}`;
}

/** Whether a lane was another one while a mark stood, as far as can be told. */
export const markDiffers = ({ during, before, against }: MarkEffect): boolean =>
  (against !== null && against.real && against.matters !== 'no') ||
  (during.minutes > 0 && during.medianMs === null) ||
  (during.lossShare ?? 0) > Math.max(0.005, 2 * (before.lossShare ?? 0));

/** What happened while a mark stood, of one lane: "34 ms instead of 12 ms (18 to 27 ms more)". */
export function markEffectWords({ before, during, against }: MarkEffect, kind: LaneKind = 'echo'): string {
  const words = (value: number | null) => laneValueWords(kind, value);
  if (during.minutes === 0) return 'shorter than a whole minute: nothing can be told';
  const loss =
    during.lossShare !== null && during.lossShare > 0.005 && during.lossShare > 2 * (before.lossShare ?? 0)
      ? `, ${shareWords(during.lossShare)} lost instead of ${shareWords(before.lossShare)}`
      : '';
  if (during.medianMs === null) return `silent${loss}`;
  if (against === null) return `${words(during.medianMs)}; too few minutes to hold it against before${loss}`;
  const { low, high } = against.interval;
  if (!against.real) return `no difference that is more than chance (${words(during.medianMs)})${loss}`;
  const [least, most] = [Math.min(Math.abs(low), Math.abs(high)), Math.max(Math.abs(low), Math.abs(high))];
  const matters = against.matters === 'no' ? '; too little to matter' : '';
  return `${words(during.medianMs)} instead of ${words(before.medianMs)} (${apartWords(kind, least, most, against.shift > 0)})${matters}${loss}`;
}

/** What was slow and whose fault it was: "Shop took 66.2 ms instead of 24.0 ms, others outside as ever: theirs". */
export function slowWords({ fault, name, tookMs, usualMs, laneIds }: SlowTime): string {
  const took = `${name} took ${delayWords(tookMs)} instead of ${delayWords(usualMs)}`;
  switch (fault) {
    case 'ours':
      return `${took}, and the gateway was late too: ours`;
    case 'line':
      return `${took}; the gateway answered as ever, everything outside was late: the line`;
    case 'theirs':
      return `${took}; others outside answered as ever: theirs`;
    case 'inside':
      return `${took} while the gateway answered as ever: inside`;
    case 'line-or-theirs':
      return `${took}; the gateway answered as ever, and nothing else outside is watched: the line or theirs`;
    case 'unknown':
      return `${took}${laneIds.length > 1 ? ' and others too' : ''}; no gateway answers here that would tell whose fault it was`;
  }
}

/** Whether a run moved more or less while a mark stood, as far as can be told. */
export const markRateDiffers = ({ against }: MarkRate): boolean =>
  against !== null && against.real && against.matters !== 'no';

/** What a run of minutes moved while a mark stood: "61.2 instead of 90.4 Mb/s (31 to 34 % less)". */
export function markRateWords({ duringBps, against }: MarkRate): string {
  const during = rateWords(duringBps);
  if (against === null) return `${during}; too short to hold it against the rest of the run`;
  if (!against.real) return `no difference that is more than chance (${during})`;
  const more = against.shift > 1 ? 'more' : 'less';
  const by = [against.interval.low, against.interval.high].map((ratio) => Math.abs(ratio - 1)).sort((a, b) => a - b);
  const matters = against.matters === 'no' ? '; too little to matter' : '';
  return `${rateFigure(duringBps)} instead of ${rateWords(against.medianA)} (${shareWords(by[0]!)} to ${shareWords(by[1]!)} ${more})${matters}`;
}
