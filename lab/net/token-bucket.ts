import { command } from './command';

const LEAST_BURST_BYTES = 6000;
/** The machines this runs on wake up late by a few milliseconds now and then: a smaller burst would lose rate. */
const BURST_MS = 6;

export interface Bucket {
  /** Whole Ethernet frames without preamble and FCS, Mb/s. */
  readonly rateMbps: number;
  /** How long the queue before it is when full, ms. */
  readonly queueMs: number;
  readonly mtuBytes?: number;
}

/** Sets, or changes while traffic flows, the kernel's token bucket (`tbf`) on what leaves a device. */
export function tokenBucket(netns: string, device: string, { rateMbps, queueMs, mtuBytes = 1500 }: Bucket): void {
  const bytesPerMs = rateMbps * 125;
  const burst = Math.round(Math.max(LEAST_BURST_BYTES, mtuBytes * 2, bytesPerMs * BURST_MS));
  command(
    ...(['tc', '-n', netns, 'qdisc', 'replace', 'dev', device, 'root', 'tbf'] as const),
    ...(['rate', `${Math.round(rateMbps * 1000)}kbit`, 'burst', String(burst)] as const),
    ...(['limit', String(Math.round(bytesPerMs * queueMs) + burst)] as const),
  );
}
