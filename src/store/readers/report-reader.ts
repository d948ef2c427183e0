import type { Deciding, FitnessFlag, RunReport, Yardstick } from '@/core';

/** Reports from this method on have codes and facts; those before had sentences in their place. */
const FACTS_SINCE = 5;

interface OldYardstick {
  readonly arithmetic: readonly string[];
}

interface OldFlag {
  readonly code: FitnessFlag['code'];
  readonly fact: string;
  readonly nextStep: string;
  readonly direction?: 'down' | 'up';
}

function yardstickOf({ arithmetic, ...rest }: Yardstick & OldYardstick): Yardstick {
  return { ...rest, ground: { written: arithmetic } };
}

function flagOf({ fact, nextStep, ...rest }: OldFlag): FitnessFlag {
  return { ...rest, written: { fact, nextStep } };
}

function decidingOf(words: string): Deciding {
  return { by: 'written', words };
}

/**
 * A report as it lies in the database, in the shape of today. One that was made before method 5 keeps the sentences it
 * was given; `npm run recompute` makes it anew from its samples.
 */
export function readReport(stored: RunReport | null): RunReport | null {
  if (stored === null || stored.methodVersion >= FACTS_SINCE) return stored;
  return {
    ...stored,
    down: { ...stored.down, yardstick: yardstickOf(stored.down.yardstick as Yardstick & OldYardstick) },
    up: { ...stored.up, yardstick: yardstickOf(stored.up.yardstick as Yardstick & OldYardstick) },
    fitness: (stored.fitness as unknown as readonly OldFlag[]).map(flagOf),
    suitability: stored.suitability.map((each) => ({
      ...each,
      because: decidingOf(each.because as unknown as string),
    })),
  };
}
