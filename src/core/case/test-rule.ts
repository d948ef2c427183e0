import type { Direction } from '../domain/plan';

/** How often and when is to be measured, before anything is said. */
export interface TestRule {
  /** Runs that count, at least. */
  readonly runs: number;
  /** Days with enough runs that count, at least. */
  readonly days: number;
  /** Runs that make a day one with enough. */
  readonly perDay: number;
  /** Between two runs that count, at least, minutes. */
  readonly apartMinutes: number;
}

/** What counts as falling short of the contract. */
export interface ShortfallRule {
  /** The usual rate is missed when so large a share of the runs does not reach it. */
  readonly usualMissedShare: number;
  /** The least rate is undercut when that happens on so many days. */
  readonly leastDays: number;
  /** This share of the advertised rate is to be reached at least once a day … */
  readonly advertisedShare: number;
  /** … and falls short when it is not on so many days. */
  readonly advertisedDays: number;
}

/** What the contract names for one direction, payload above TCP, bits per second; null: it does not. */
export interface ContractRates {
  readonly advertisedBps: number | null;
  readonly usualBps: number | null;
  readonly leastBps: number | null;
}

export type CaseContract = Readonly<Record<Direction, ContractRates>>;

export interface CaseRule extends TestRule, ShortfallRule {}

/** To begin with: thirty runs on three days. Each figure can be changed. */
export const USUAL_CASE_RULE: CaseRule = {
  ...{ runs: 30, days: 3, perDay: 10, apartMinutes: 5 },
  ...{ usualMissedShare: 0.9, leastDays: 2, advertisedShare: 0.9, advertisedDays: 2 },
};
