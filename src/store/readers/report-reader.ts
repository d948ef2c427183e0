import type { DirectionReport, FitnessFlag, RunReport, Suitability, Yardstick } from '@/core';

/** Reports from this method on have codes and facts; those before had sentences in their place. */
const FACTS_SINCE = 5;

interface OldFlag {
  readonly code: FitnessFlag['code'];
  readonly fact: string;
  readonly nextStep: string;
  readonly direction?: 'down' | 'up';
}

/** What a report of before has where today's has facts. The oldest ones lack some of it. */
interface OldReport extends Omit<RunReport, 'down' | 'up' | 'fitness' | 'suitability'> {
  readonly down?: OldDirection;
  readonly up?: OldDirection;
  readonly fitness?: readonly OldFlag[];
  readonly suitability?: readonly (Omit<Suitability, 'because'> & { readonly because: string })[];
}
type OldDirection = Omit<DirectionReport, 'yardstick'> & {
  readonly yardstick: Yardstick & { readonly arithmetic: readonly string[] };
};

function directionOf({ yardstick: { arithmetic, ...yardstick }, ...rest }: OldDirection): DirectionReport {
  return { ...rest, yardstick: { ...yardstick, ground: { written: arithmetic } } };
}

function flagOf({ fact, nextStep, ...rest }: OldFlag): FitnessFlag {
  return { ...rest, written: { fact, nextStep } };
}

/**
 * A report as it lies in the database, in the shape of today. One that was made before method 5 keeps the sentences it
 * was given; `npm run recompute` makes it anew from its samples.
 */
export function readReport(stored: RunReport | null): RunReport | null {
  if (stored === null || stored.methodVersion >= FACTS_SINCE) return stored;
  const { down, up, fitness = [], suitability = [], ...rest } = stored as unknown as OldReport;
  return {
    ...rest,
    ...(down === undefined ? {} : { down: directionOf(down) }),
    ...(up === undefined ? {} : { up: directionOf(up) }),
    fitness: fitness.map(flagOf),
    suitability: suitability.map(({ because, ...each }) => ({ ...each, because: { by: 'written', words: because } })),
  } as RunReport;
}
