import type { RateEstimate } from '../../measure/rate/rate-estimate';
import type { KernelSighting } from '../../domain/sightings';
import type { FitnessInput } from './fitness-input';
import type { FitnessFacts, FitnessFlag } from './fitness-flag';

/** Above this share of what the client can take in from itself, it is the client that is measured. */
const SELF_READ_SHARE = 0.7;
/** Share of the counted time in which the client's timer was late: half of it where the figure is unsettled as well. */
const STALLED_SHARE = 0.2;
const STALLED_SHARE_UNSETTLED = 0.1;
/** Share of the sending time in which the receiver's window held the peer back. */
const RECEIVER_LIMITED_SHARE = 0.4;
const CLOCK_JUMP_MS = 500;
const OTHER_TRAFFIC_SHARE = 0.02;
const LEAST_OTHER_BPS = 500_000;

/** Share of the busy time of all connections in which the receiver's window was the limit; null when nobody said. */
export function receiverLimitedShare(sightings: readonly KernelSighting[]): number | null {
  const last = new Map(sightings.map((sighting) => [sighting.port, sighting]));
  let busyMs = 0;
  let limitedMs = 0;
  for (const sighting of last.values()) {
    busyMs += sighting.busyMs ?? 0;
    limitedMs += sighting.receiverLimitedMs ?? 0;
  }
  return busyMs === 0 ? null : limitedMs / busyMs;
}

/** How much of a direction's counted time the device was too busy to keep time. Times on the run's clock. */
function stalledShare({ samples }: FitnessInput, rate: RateEstimate, offsetMs: number): number {
  const [fromMs, toMs] = [rate.countedFromMs + offsetMs, rate.countedToMs + offsetMs];
  const stalledMs = (samples.client?.stalls ?? [])
    .filter(({ atMs }) => atMs >= fromMs && atMs <= toMs)
    .reduce((sum, { lateMs }) => sum + lateMs, 0);
  return stalledMs / (toMs - fromMs);
}

function slownessFact(input: FitnessInput): FitnessFacts['device-limited'] | null {
  const { samples, down, up, conditions } = input;
  const { client, kernel } = samples;
  const limited = conditions.practice ? null : receiverLimitedShare(kernel);
  if (limited !== null && limited >= RECEIVER_LIMITED_SHARE) return { by: 'window', share: limited };
  if (client === null) return null;
  const { selfReadBps } = client;
  if (selfReadBps !== null && down !== null && down.steadyBps >= SELF_READ_SHARE * selfReadBps)
    return { by: 'self-read', selfReadBps };
  for (const [rate, offsetMs, way] of [
    [down, 0, 'down'],
    [up, samples.peerClockOffsetMs ?? 0, 'up'],
  ] as const) {
    if (rate === null) continue;
    const share = stalledShare(input, rate, offsetMs);
    if (share >= (rate.settled ? STALLED_SHARE : STALLED_SHARE_UNSETTLED)) return { by: 'stalls', share, way };
  }
  return null;
}

/** What the device, its page and its clock did to the run. */
export function deviceFlags(input: FitnessInput): FitnessFlag[] {
  const { samples, conditions, down, up } = input;
  const { client } = samples;
  const flags: FitnessFlag[] = [];
  const slowness = slownessFact(input);
  if (slowness !== null) flags.push({ code: 'device-limited', facts: slowness });
  if (client?.otherTraffic) {
    const { downBytes, upBytes, overMs } = client.otherTraffic;
    const [otherDown, otherUp] = [downBytes, upBytes].map((bytes) => (bytes * 8000) / Math.max(overMs, 1)) as [
      number,
      number,
    ];
    const much = (other: number, own: number | undefined) =>
      other > LEAST_OTHER_BPS && other > OTHER_TRAFFIC_SHARE * (own ?? 0);
    if (much(otherDown, down?.meanBps) || much(otherUp, up?.meanBps))
      flags.push({ code: 'other-traffic', facts: { seen: 'counted', downBps: otherDown, upBps: otherUp } });
  }
  if (conditions.pageHiddenMs > 0) flags.push({ code: 'page-hidden', facts: { hiddenMs: conditions.pageHiddenMs } });
  if (client !== null && Math.abs(client.wallSpanMs - client.spanMs) > CLOCK_JUMP_MS)
    flags.push({ code: 'clock-jump', facts: { jumpMs: client.wallSpanMs - client.spanMs } });
  if (client?.powerSaving) flags.push({ code: 'power-saving', facts: { setting: client.powerSaving } });
  return flags;
}
