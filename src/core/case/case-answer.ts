import type { Direction } from '../domain/plan';
import type { CaseDay, CaseEvidence, CaseRun } from './case-evidence';
import type { CaseContract, CaseRule } from './test-rule';

export const CASE_MEASURES = ['usual', 'least', 'advertised'] as const;
export type CaseMeasure = (typeof CASE_MEASURES)[number];

/** How one of the contract's figures fared in one direction. */
export interface MeasureAnswer {
  readonly measure: CaseMeasure;
  readonly direction: Direction;
  /** What the contract names, bits per second. */
  readonly contractBps: number;
  /** What was to be reached: a share of the advertised rate, else the same. */
  readonly wantedBps: number;
  /** Of the runs (usual), or of the days (least, advertised): how many fell short, and of how many. */
  readonly short: number;
  readonly of: number;
  readonly unit: 'runs' | 'days';
  /** So many falling short are a shortfall. */
  readonly limit: number;
  readonly fallsShort: boolean;
}

/** What a case comes to. While the rule is not fulfilled it is how things stand so far, and no answer. */
export interface CaseAnswer {
  readonly complete: boolean;
  readonly measures: readonly MeasureAnswer[];
  readonly fallsShort: boolean;
}

const rateOf = (run: CaseRun, direction: Direction) => (direction === 'down' ? run.downBps : run.upBps)!;
const below = (runs: readonly CaseRun[], direction: Direction, bps: number) =>
  runs.filter((run) => rateOf(run, direction) < bps).length;

function measureOf(
  measure: CaseMeasure,
  direction: Direction,
  contractBps: number,
  { counted, days }: CaseEvidence,
  rule: CaseRule,
): MeasureAnswer {
  const shared = { measure, direction, contractBps };
  if (measure === 'usual') {
    const short = below(counted, direction, contractBps);
    const limit = Math.max(1, Math.ceil(rule.usualMissedShare * counted.length));
    return {
      ...{ ...shared, wantedBps: contractBps, short, of: counted.length, unit: 'runs', limit },
      fallsShort: counted.length > 0 && short >= limit,
    };
  }
  const wantedBps = measure === 'least' ? contractBps : rule.advertisedShare * contractBps;
  // The least is undercut by one run below it; of the advertised rate enough is reached by one run at it.
  const fails = ({ runs }: CaseDay) => {
    const count = below(runs, direction, wantedBps);
    return measure === 'least' ? count > 0 : count === runs.length;
  };
  const short = days.filter(fails).length;
  const limit = measure === 'least' ? rule.leastDays : rule.advertisedDays;
  return { ...shared, wantedBps, short, of: days.length, unit: 'days', limit, fallsShort: short >= limit };
}

/** Each figure that the contract names held against the runs that count, by what the rule calls falling short. */
export function caseAnswer(evidence: CaseEvidence, contract: CaseContract, rule: CaseRule): CaseAnswer {
  const measures = (['down', 'up'] as const).flatMap((direction) =>
    CASE_MEASURES.flatMap((measure) => {
      const contractBps = contract[direction][`${measure}Bps`];
      // Of no run nothing is kept, and nothing undercut.
      return contractBps === null || evidence.counted.length === 0
        ? []
        : [measureOf(measure, direction, contractBps, evidence, rule)];
    }),
  );
  return {
    complete: evidence.complete,
    measures,
    fallsShort: measures.some(({ fallsShort }) => fallsShort),
  };
}
