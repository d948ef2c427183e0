import type { Receipt } from '../../run/receipt';
import type { RunSamples } from '../../run/run-samples';
import { phaseSpan } from '../../run/run-samples';
import { echoedBetween } from '../../measure/delay/probe-series';
import { finalBytes, type CounterSeries } from '../../measure/rate/counter-series';
import { median, percentile } from '../../stats/percentile';
import type { Incredible } from './fitness-flag';

/** A client may count this much more than the peer did: rounding, and what was under way when the receipt was made. */
const MORE_BYTES = { share: 0.02, bytes: 256 * 1024 };
/** A client's load may be shorter than the peer's by this, and by two of its round trips, but by no more than `mostMs`. */
const SHORTER = { share: 0.1, ms: 500, mostMs: 2500 };
/** No round trip through two programs is shorter, ms. */
const LEAST_RTT_MS = 0.01;
/** A round trip cannot be below this share of the least that the peer's kernel saw. */
const KERNEL_SHARE = 0.8;
/** Coarser clocks than this are not taken at their word, ms. */
const MOST_STEP_MS = 100;
const MORE_ECHOES = 2;

const bytesOf = (...series: readonly (CounterSeries | null)[]) =>
  series.reduce((sum, each) => sum + (finalBytes(each) ?? 0), 0);

const spanOf = (...series: readonly (CounterSeries | null)[]) =>
  series.reduce((sum, each) => sum + (each === null ? 0 : (each.atMs.at(-1) ?? 0) - (each.atMs[0] ?? 0)), 0);

function idleFact(samples: RunSamples, receipt: Receipt | null): Incredible | null {
  const idle = phaseSpan(samples, 'idle');
  const idleMs = idle === null ? null : median(echoedBetween(samples.probes, idle.fromMs, idle.toMs));
  if (idleMs === null) return null;
  const stepMs = Math.min(MOST_STEP_MS, samples.client?.clockStepMs ?? 0);
  const kernelMs = receipt?.minRttMs ?? null;
  const floorMs = Math.max(LEAST_RTT_MS, kernelMs === null ? 0 : KERNEL_SHARE * kernelMs);
  if (idleMs + stepMs >= floorMs) return null;
  return { what: 'round-trip', rttMs: idleMs, kernelMs };
}

function directionFact(samples: RunSamples, receipt: Receipt, way: 'down' | 'up'): Incredible | null {
  const series = way === 'down' ? [samples.download, samples.bothDown] : [samples.upload, samples.bothUp];
  const [claimed, seen] = [bytesOf(...series), receipt[way]];
  if (claimed > seen.bytes * (1 + MORE_BYTES.share) + MORE_BYTES.bytes)
    return { what: 'over-peer', way, bytes: claimed, peerBytes: seen.bytes };
  const spanMs = spanOf(...series);
  const slowestMs = percentile(
    samples.probes.rttMs.filter((rtt) => rtt !== null),
    0.95,
  );
  const slackMs = Math.min(SHORTER.mostMs, SHORTER.ms + 2 * (slowestMs ?? 0));
  if (claimed > 0 && spanMs < seen.activeMs * (1 - SHORTER.share) - slackMs)
    return { what: 'too-short', way, spanMs, peerMs: seen.activeMs };
  return null;
}

/**
 * What in the samples cannot be; null when all of it can. They are held against the ticket's bytes, against
 * what the peer signed for (null: nothing), and against the time that a round trip takes at least.
 */
export function incredibleFact(
  samples: RunSamples,
  receipt: Receipt | null,
  limitBytes: number | null,
): Incredible | null {
  const all = bytesOf(samples.download, samples.bothDown, samples.upload, samples.bothUp);
  if (limitBytes !== null && all > limitBytes * (1 + MORE_BYTES.share))
    return { what: 'over-ticket', bytes: all, allowedBytes: limitBytes };
  if (receipt !== null) {
    const fact = directionFact(samples, receipt, 'down') ?? directionFact(samples, receipt, 'up');
    if (fact !== null) return fact;
    const echoed = samples.probes.rttMs.filter((rtt) => rtt !== null).length;
    if (echoed > receipt.echoes + MORE_ECHOES) return { what: 'echoes', echoes: echoed, peerEchoes: receipt.echoes };
  }
  return idleFact(samples, receipt);
}
