import { compareGroups, type GroupComparison } from '../judge/compare/group-comparison';
import type { RateSeconds } from '../picture/rate-seconds';
import { seededRandom } from '../stats/seeded-random';
import { mean } from '../stats/mean';
import { median } from '../stats/percentile';

/** A run that was under way while something was marked. */
export interface RunSeconds extends RateSeconds {
  /** Where its clock begins, ms since 1970. */
  readonly startedAtMs: number;
}

export type RateWay = 'down' | 'up';

/** What a run moved one way beside a mark; rates in bits per second, null: nothing was measured then. */
export interface MarkRate {
  readonly way: RateWay;
  readonly beforeBps: number | null;
  readonly duringBps: number | null;
  readonly afterBps: number | null;
  /** During against the rest; null: too short to tell. */
  readonly against: Extract<GroupComparison, { status: 'told' }> | null;
}

/**
 * Neighbouring seconds of a TCP connection know of each other, blocks of so many hardly do: with these a line that does nothing is
 * called different in 5 of 100 marks (simulated in the test).
 */
export const RATE_BLOCK_MS = 10_000;
const SECOND_MS = 1000;
/** Of a block less may be missing than this share. */
const LEAST_OF_BLOCK = 0.8;
/** A line that is dead has no logarithm: as little as this is nothing. */
const NOTHING_BPS = 1000;
/** What a direction moves before it has its way, and while it is ended, is no answer to anything. */
const RAMP_MS = 10_000;

interface Second {
  readonly atMs: number;
  readonly bps: number;
}

/** The seconds of one direction after its ramp, in the order of time. */
function secondsOf({ startedAtMs, fromMs, ...ways }: RunSeconds, way: RateWay): Second[] {
  const known = ways[way === 'down' ? 'downBps' : 'upBps'].flatMap((bps, place) =>
    bps === null ? [] : [{ atMs: startedAtMs + fromMs + place * SECOND_MS, bps }],
  );
  const first = known[0];
  return first === undefined ? [] : known.filter(({ atMs }) => atMs >= first.atMs + RAMP_MS).slice(0, -1);
}

/** Means of blocks that lie wholly in a stretch. */
function blocksOf(seconds: readonly Second[], fromMs: number, untilMs: number) {
  const blocks = new Map<number, number[]>();
  for (const { atMs, bps } of seconds) {
    if (atMs < fromMs || atMs + SECOND_MS > untilMs) continue;
    const place = Math.floor((atMs - fromMs) / RATE_BLOCK_MS);
    blocks.set(place, [...(blocks.get(place) ?? []), bps]);
  }
  return [...blocks.values()]
    .filter((block) => block.length * SECOND_MS >= LEAST_OF_BLOCK * RATE_BLOCK_MS)
    .map((block) => Math.max(NOTHING_BPS, mean(block)!));
}

/**
 * What a run of minutes moved before, during and after a mark: during is held against before and after together, as in comparing groups,
 * each block of ten seconds one value. Ways that the mark does not touch are left out.
 */
export function markRates(run: RunSeconds, { fromMs, untilMs }: { fromMs: number; untilMs: number }): MarkRate[] {
  return (['down', 'up'] as const).flatMap((way): MarkRate[] => {
    const seconds = secondsOf(run, way);
    const first = seconds[0]?.atMs;
    if (first === undefined) return [];
    const [before, during, after] = [
      blocksOf(seconds, Math.min(first, fromMs), fromMs),
      blocksOf(seconds, Math.max(first, fromMs), untilMs),
      blocksOf(seconds, untilMs, Infinity),
    ];
    if (during.length === 0) return [];
    const named = (values: readonly number[], name: string) =>
      values.map((value, place) => ({ value, occasion: `${name} ${place}` }));
    const compared = compareGroups(
      [...named(before, 'before'), ...named(after, 'after')],
      named(during, 'during'),
      'rate',
      seededRandom(1),
    );
    return [
      {
        ...{ way, beforeBps: median(before), duringBps: median(during), afterBps: median(after) },
        against: compared.status === 'told' ? compared : null,
      },
    ];
  });
}
