import { percentile } from '../../stats/percentile';
import { echoedBetween, type ProbeSeries } from './probe-series';

const LEAST_RISE_MS = 5;
const IN_A_ROW = 3;

/**
 * When, after a load began, the queue began to fill: ms from `loadFromMs` to the first of three probes in a row that
 * took longer than the idle 95th percentile by at least 5 ms. Null when that never happened: the queue stayed empty,
 * or nothing was measured.
 */
export function queueOnsetMs(
  probes: ProbeSeries,
  idle: { readonly fromMs: number; readonly toMs: number },
  loadFromMs: number,
  loadToMs: number,
): number | null {
  const idleP95 = percentile(echoedBetween(probes, idle.fromMs, idle.toMs), 0.95);
  if (idleP95 === null) return null;
  let row = 0;
  for (let index = 0; index < probes.sentMs.length; index += 1) {
    const sentMs = probes.sentMs[index]!;
    const rtt = probes.rttMs[index];
    if (sentMs < loadFromMs || sentMs >= loadToMs || rtt === null || rtt === undefined) continue;
    row = rtt > idleP95 + LEAST_RISE_MS ? row + 1 : 0;
    if (row === IN_A_ROW) return probes.sentMs[index - IN_A_ROW + 1]! - loadFromMs;
  }
  return null;
}
