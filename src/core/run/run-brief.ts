import type { FitnessCode } from '../fitness/fitness-flag';
import { yardstickBps } from '../judge/yardstick';
import type { RunReport } from './run-report';

/** What lists and sets need of a report, without its series, summaries and words. Rates in bits per second. */
export interface RunBrief {
  readonly flags: readonly FitnessCode[];
  /** Null where there is no yardstick. */
  readonly downYardstickBps: number | null;
  readonly upYardstickBps: number | null;
}

export function briefOf({ fitness, down, up }: RunReport): RunBrief {
  return {
    flags: fitness.map(({ code }) => code),
    downYardstickBps: yardstickBps(down.yardstick),
    upYardstickBps: yardstickBps(up.yardstick),
  };
}
