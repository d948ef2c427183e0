import type { FitnessFlag } from '../fitness/fitness-flag';
import type { Yardstick } from '../judge/yardstick';
import type { RunReport } from './run-report';

/** What lists and sets need of a report, without its series and summaries. */
export interface RunBrief {
  readonly fitness: readonly FitnessFlag[];
  readonly down: Yardstick;
  readonly up: Yardstick;
}

export function briefOf({ fitness, down, up }: RunReport): RunBrief {
  return { fitness, down: down.yardstick, up: up.yardstick };
}
