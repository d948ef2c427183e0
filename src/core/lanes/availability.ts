import type { Outage } from './whose-fault';

export interface Availability {
  /** Of the watched time in which the line was not silent, from 0 to 1; null: it was not watched. */
  readonly share: number | null;
  readonly watchedMs: number;
  readonly silentMs: number;
  readonly outages: number;
}

/** Faults that are the line's: what is ours or theirs says nothing about it. */
const OF_LINE = new Set<Outage['fault']>(['line', 'line-or-theirs']);

/**
 * How much of the watched time a line was there: watched time without its outages, over watched time. What is ours takes the time
 * in which nothing is known of the line out of both.
 */
export function availabilityOf(
  outages: readonly Outage[],
  watchedMs: number,
  fromMs: number,
  untilMs: number,
): Availability {
  const within = (outage: Outage) =>
    Math.max(0, Math.min(outage.untilMs ?? untilMs, untilMs) - Math.max(outage.fromMs, fromMs));
  const sum = (of: readonly Outage[]) => of.reduce((all, outage) => all + within(outage), 0);
  const ofLine = outages.filter((outage) => OF_LINE.has(outage.fault) && within(outage) > 0);
  const ofOthers = outages.filter(({ fault }) => fault === 'ours' || fault === 'unknown');
  const knownMs = Math.max(0, watchedMs - sum(ofOthers));
  const silentMs = Math.min(knownMs, sum(ofLine));
  return { share: knownMs > 0 ? 1 - silentMs / knownMs : null, watchedMs: knownMs, silentMs, outages: ofLine.length };
}
