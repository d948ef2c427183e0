import type { LinkCeiling } from '../ceiling/link-ceiling-type';
import type { Direction, Plan } from '../domain/plan';
import { planPayloadBps } from '../domain/plan';
import { rateBloat } from '../judge/bloat-rating';
import { groupedBy } from '../stats/grouped';
import { median } from '../stats/percentile';
import { acrossOf, capacityFindings, leastFinding, type CapacityInput } from './capacity-findings';
import { inOrder, type Finding } from './finding';
import type { Occasion } from './observation';
import { deepQueuesOf, type DeepQueue } from './queues';
import { classOf, fallsShort, soundOf, type Proof } from './proof';
import type { DiagnosedSegment } from './segment';
import { slowHoursOf } from './slow-hours';
import { suspicionOf, type Suspicion } from './suspicion';

/** A device as the diagnosis knows it. */
export interface DiagnosedDevice {
  readonly id: string;
  readonly name: string;
  /** What its cable came up at, bits per second; null: no cable, or nobody read it. */
  readonly cableBps: number | null;
  readonly cable: LinkCeiling | null;
}

/** All that is known of an office, of the last weeks. */
export interface DiagnosisInput {
  readonly segments: readonly DiagnosedSegment[];
  readonly occasions: readonly Occasion[];
  readonly devices: readonly DiagnosedDevice[];
  readonly plan: Plan | null;
  /** What a tunnel gives at best, by id of its segment. */
  readonly tunnelPlans: ReadonlyMap<string, Plan>;
  /** What the outside peer's own port can show, bits per second; null: not known. */
  readonly outsidePeerBps: number | null;
  /** Occasions of before tell only the hours of a line, UTC epoch ms. */
  readonly freshFromMs: number;
}

/** What is thought of one segment, in both directions. */
export interface SegmentState {
  readonly segment: DiagnosedSegment;
  readonly proven: { readonly down: Proof | null; readonly up: Proof | null };
  /** How likely it is to hold back, 0 to 1. */
  readonly suspicion: { readonly down: number; readonly up: number };
  /** Devices whose runs cross it. */
  readonly deviceIds: readonly string[];
}

export interface Diagnosis {
  /** Worst first. */
  readonly findings: readonly Finding[];
  readonly segments: readonly SegmentState[];
  /** Occasions that it was made of. */
  readonly occasions: number;
}

const DIRECTIONS = ['down', 'up'] as const;
/** A cable that came up at a tenth of the others', or less. */
const SLOW_PORT = 0.5;
/** A share of repeats from which on a path loses packets: a line that drops 1 % gives a third. */
const LOSES_FROM = 0.005;
const LEAST_LOSING = 2;
/** Two newest occasions of one path and one hour, further apart than this, contradict each other. */
const CONTRADICTION = 1.6;
const DAY_MS = 24 * 3600_000;
/** The usual port of an office: what comes up slower than this is worth a look even if it is the only cable. */
const USUAL_PORT_BPS = 1e9;

const sinceOf = (occasions: readonly Occasion[], ids: readonly string[]) =>
  occasions
    .filter(({ runIds }) => runIds.some((id) => ids.includes(id)))
    .reduce((least, { startedAtMs }) => Math.min(least, startedAtMs), Infinity);

/** Cables that came up slower than the other cables of the office: no inference, it was read. */
function slowPorts({ devices, occasions, segments }: DiagnosisInput): Finding[] {
  const cables = devices.filter(({ cableBps }) => cableBps !== null);
  const others = median(cables.map(({ cableBps }) => cableBps!)) ?? 0;
  const usual = Math.max(
    others,
    cables.length === 1 ? 0 : Math.min(USUAL_PORT_BPS, ...cables.map((each) => each.cableBps!)),
  );
  return cables.flatMap(({ id, cableBps, cable }) => {
    if (cableBps! > SLOW_PORT * usual) return [];
    const othersCount = cables.filter((other) => other.cableBps! >= usual).length;
    const own = occasions.filter(
      ({ deviceId, path }) => deviceId === id && path.some((each) => each.startsWith(`cable:${id}`)),
    );
    const newest = [...own].sort((a, b) => b.startedAtMs - a.startedAtMs);
    const segment = segments.findLast((each) => each.kind === 'cable' && each.deviceId === id);
    if (segment === undefined) return [];
    const measuredBps = newest.find(({ down }) => down !== null)?.down!.medianBps ?? null;
    return [
      {
        key: `cable-came-up-slow ${segment.id}`,
        facts: {
          code: 'cable-came-up-slow',
          ...{ negotiatedBps: cableBps!, othersBps: usual, othersCount, measuredBps },
        },
        strength: 'fact',
        ...{ segments: [segment], hours: null, deviceIds: [id] },
        sinceMs: newest.at(-1)?.startedAtMs ?? 0,
        evidence: { for: newest.flatMap(({ runIds }) => runIds), against: [] },
        weight: 1 - (cable?.payloadBps ?? cableBps!) / usual,
      } satisfies Finding,
    ];
  });
}

function queueFinding(queue: DeepQueue, { segments, occasions }: DiagnosisInput): Finding {
  const { where, direction, addedMs, deviceIds, runIds, against } = queue;
  const across = occasions.filter((occasion) => occasion.runIds.some((id) => runIds.includes(id)));
  const kinds = where === 'inside' ? ['air', 'cable', 'unknown-link', 'vpn'] : [where];
  const segment = segments.find(
    (each) => kinds.includes(each.kind) && across.some(({ path }) => path.includes(each.id)),
  );
  return {
    key: `queue-too-deep ${direction} ${segment?.id ?? where}`,
    facts: { code: 'queue-too-deep', where, direction, addedMs, rating: rateBloat(addedMs)! },
    strength: deviceIds.length > 1 || runIds.length > 2 ? 'found' : 'likely',
    segments: segment === undefined ? [] : [segment],
    ...{ hours: null, deviceIds },
    sinceMs: sinceOf(occasions, runIds),
    evidence: { for: runIds, against },
    // Whoever waits a second waits as if nine tenths of the rate were gone.
    weight: deviceIds.length * Math.min(1, addedMs / 250),
  };
}

/** The hours in which the line sags, and its occasions marked with a segment of those hours. */
function partHours(input: DiagnosisInput, direction: Direction) {
  const line = input.segments.findLast(({ kind }) => kind === 'line');
  if (line === undefined) return { input, finding: null };
  const through = input.occasions.filter(
    ({ reach, path, [direction]: rate }) => reach === 'internet' && rate !== null && path.includes(line.id),
  );
  // Held within one device and link at a time: another device at another hour is no sag.
  const classes = [...groupedBy(through, classOf).values()].sort((a, b) => b.length - a.length);
  for (const of of classes) {
    const slow = slowHoursOf(
      of.map(({ hour, runIds, [direction]: rate }) => ({ hour, bps: rate!.medianBps, occasion: runIds[0]! })),
    );
    if (slow === null) continue;
    const id = `${line.id} in hours`;
    const inHours: DiagnosedSegment = { ...line, id, kind: 'line-in-hours', hours: slow.hours };
    const slowRuns = of.filter(({ hour }) => slow.hours.includes(hour));
    const deviceIds = [...new Set(through.map(({ deviceId }) => deviceId))];
    const finding: Finding = {
      key: `line-slow-in-hours ${direction} ${line.id}`,
      facts: {
        code: 'line-slow-in-hours',
        ...{ bps: slow.bps, elseBps: slow.elseBps, occasions: slow.occasions, direction, plan: input.plan },
      },
      strength: 'found',
      ...{ segments: [line], hours: slow.hours, deviceIds },
      sinceMs: Math.min(...slowRuns.map(({ startedAtMs }) => startedAtMs)),
      evidence: {
        for: slowRuns.flatMap(({ runIds }) => runIds),
        against: of.filter(({ hour }) => !slow.hours.includes(hour)).flatMap(({ runIds }) => runIds),
      },
      weight: (deviceIds.length * (1 - slow.bps / slow.elseBps) * slow.hours.length) / 8,
    };
    return {
      finding,
      input: {
        ...input,
        segments: [...input.segments, inHours],
        occasions: input.occasions.map((occasion) =>
          slow.hours.includes(occasion.hour) && occasion.path.includes(line.id)
            ? { ...occasion, path: occasion.path.flatMap((each) => (each === line.id ? [each, id] : [each])) }
            : occasion,
        ),
      },
    };
  }
  return { input, finding: null };
}

function tunnelEnds({ tunnelPlans, segments, occasions }: DiagnosisInput, direction: Direction): Finding[] {
  return [...tunnelPlans].flatMap(([id, plan]) => {
    const segment = segments.find((each) => each.id === id);
    const through = occasions.filter(({ path, [direction]: rate }) => rate !== null && path.includes(id));
    const measuredBps = median(through.map(({ [direction]: rate }) => rate!.medianBps));
    const promised = planPayloadBps(plan, direction);
    if (segment === undefined || measuredBps === null || measuredBps < 0.8 * promised) return [];
    // Only where the other office's line is what limits: a fast tunnel is no finding.
    if (promised > 100e6) return [];
    return [
      {
        key: `tunnel-slower-end ${direction} ${id}`,
        facts: { code: 'tunnel-slower-end', measuredBps, plan, direction },
        strength: 'fact',
        ...{ segments: [segment], hours: null },
        deviceIds: [...new Set(through.map(({ deviceId }) => deviceId))],
        sinceMs: Math.min(...through.map(({ startedAtMs }) => startedAtMs)),
        evidence: { for: through.flatMap(({ runIds }) => runIds), against: [] },
        weight: 0.1,
      } satisfies Finding,
    ];
  });
}

/** Paths on which much had to be sent again, over a cable: in the air that is usual. */
function losses({ occasions, segments }: DiagnosisInput): Finding[] {
  const onCable = occasions.filter(({ path }) => path.some((id) => id.startsWith('cable:')));
  const losing = onCable.filter(({ resentShare }) => resentShare !== null && resentShare >= LOSES_FROM);
  const slow = losing.filter(({ path, down }) => {
    const sound = soundOf(path, new Map(segments.map((each) => [each.id, each])), 'down');
    return down !== null && fallsShort(down.medianBps, sound);
  });
  const runs = slow.flatMap(({ runIds }) => runIds);
  if (runs.length < LEAST_LOSING) return [];
  const shared = slow.map(({ path }) => path).reduce((all, path) => all.filter((id) => path.includes(id)));
  return [
    {
      key: `packets-lost ${shared.join(' ')}`,
      facts: {
        code: 'packets-lost',
        resentShare: median(slow.map(({ resentShare }) => resentShare!))!,
        runs: runs.length,
      },
      strength: 'likely',
      segments: segments.filter(({ id, kind }) => shared.includes(id) && kind !== 'device'),
      hours: null,
      deviceIds: [...new Set(slow.map(({ deviceId }) => deviceId))],
      sinceMs: Math.min(...slow.map(({ startedAtMs }) => startedAtMs)),
      evidence: {
        for: runs,
        against: onCable.filter((each) => !losing.includes(each)).flatMap(({ runIds }) => runIds),
      },
      weight: new Set(slow.map(({ deviceId }) => deviceId)).size * 0.5,
    },
  ];
}

function peerLimit({ plan, outsidePeerBps, segments }: DiagnosisInput): Finding[] {
  const peer = segments.find(({ kind, id }) => kind === 'peer' && id.includes('internet'));
  if (plan === null || outsidePeerBps === null || peer === undefined) return [];
  if (outsidePeerBps >= 0.95 * planPayloadBps(plan, 'down')) return [];
  return [
    {
      key: `peer-below-plan ${peer.id}`,
      facts: { code: 'peer-below-plan', peerBps: outsidePeerBps, plan },
      strength: 'fact',
      ...{ segments: [peer], hours: null, deviceIds: [], sinceMs: 0 },
      evidence: { for: [], against: [] },
      weight: 0.2,
    },
  ];
}

/** Two newest occasions of one path and about one hour that cannot both be its figure: shown, not averaged away. */
function contradictions({ occasions, segments }: DiagnosisInput, direction: Direction): Finding[] {
  const known = new Map(segments.map((each) => [each.id, each]));
  return [...groupedBy(occasions, classOf).values()].flatMap((of) => {
    const [newest, before] = of
      .filter(({ [direction]: rate }) => rate !== null)
      .sort((a, b) => b.startedAtMs - a.startedAtMs);
    if (newest === undefined || before === undefined) return [];
    if (newest.startedAtMs - before.startedAtMs > 2 * DAY_MS) return [];
    const [a, b] = [newest[direction]!.medianBps, before[direction]!.medianBps];
    if (Math.max(a, b) / Math.min(a, b) < CONTRADICTION || newest.path.some((id) => id.startsWith('air:'))) return [];
    const last = known.get(newest.path[1]!);
    return [
      {
        key: `contradicting-runs ${direction} ${newest.path.join(' ')}`,
        facts: {
          ...{ code: 'contradicting-runs', direction },
          ...{ lowBps: Math.min(a, b), highBps: Math.max(a, b) },
        },
        strength: 'hint',
        segments: last === undefined ? [] : [last],
        ...{ hours: null, deviceIds: [newest.deviceId], sinceMs: newest.startedAtMs, weight: 0.1 },
        evidence: { for: newest.runIds, against: before.runIds },
      } satisfies Finding,
    ];
  });
}

/** A cause that is read off explains a direction of its device: it is not also a suspicion. */
function withoutDoubles(findings: readonly Finding[]): Finding[] {
  const sags = findings.filter(({ facts }) => facts.code === 'line-slow-in-hours');
  const least = findings.filter(({ facts }) => facts.code === 'line-below-least');
  const lineQueues = findings.filter(({ facts }) => facts.code === 'queue-too-deep' && facts.where === 'line');
  return mergedDirections(findings).filter(({ facts, segments }) => {
    if (facts.code === 'line-below-plan') return least.length === 0 && sags.length === 0;
    // Through a tunnel one waits in the same queue.
    if (facts.code === 'queue-too-deep' && facts.where === 'tunnel')
      return !lineQueues.some(
        (queue) => queue.facts.code === 'queue-too-deep' && queue.facts.direction === facts.direction,
      );
    return facts.code !== 'segment-holds-back' || segments.length > 0;
  });
}

/** One segment that holds back both ways is one finding: that of the direction which loses more. */
function mergedDirections(findings: readonly Finding[]): Finding[] {
  const directionless = (key: string) => key.replace(/ (down|up) /, ' ');
  const perSegment = new Set(['segment-holds-back', 'line-below-plan', 'tunnel-slower-end', 'contradicting-runs']);
  const groups = groupedBy(findings, ({ key, facts }) => (perSegment.has(facts.code) ? directionless(key) : key));
  return [...groups.values()].map((group) => {
    const [worst, other] = [...group].sort((a, b) => b.weight - a.weight);
    if (other === undefined) return worst!;
    const all = (pick: (finding: Finding) => readonly string[]) => [...new Set([...pick(worst!), ...pick(other)])];
    return {
      ...worst!,
      key: directionless(worst!.key),
      deviceIds: all(({ deviceIds }) => deviceIds),
      evidence: { for: all(({ evidence }) => evidence.for), against: all(({ evidence }) => evidence.against) },
    };
  });
}

function statesOf(input: DiagnosisInput, of: Readonly<Record<Direction, Suspicion>>): SegmentState[] {
  const crossing = new Map<string, Set<string>>(input.segments.map(({ id }) => [id, new Set()]));
  for (const { path, deviceId } of input.occasions) for (const id of path) crossing.get(id)?.add(deviceId);
  return input.segments.map((segment) => ({
    segment,
    proven: { down: of.down.proofs.get(segment.id) ?? null, up: of.up.proofs.get(segment.id) ?? null },
    suspicion: {
      down: of.down.probability.get(segment.id) ?? 0,
      up: of.up.probability.get(segment.id) ?? 0,
    },
    deviceIds: [...(crossing.get(segment.id) ?? [])],
  }));
}

/** From everything that is known of an office to what stands out in it, and what is thought of each segment. */
export function diagnose(whole: DiagnosisInput): Diagnosis {
  const fresh = ({ input, finding }: ReturnType<typeof partHours>) => ({
    finding,
    input: { ...input, occasions: input.occasions.filter(({ startedAtMs }) => startedAtMs >= whole.freshFromMs) },
  });
  const parted = { down: fresh(partHours(whole, 'down')), up: fresh(partHours(whole, 'up')) };
  const given = { ...whole, occasions: whole.occasions.filter(({ startedAtMs }) => startedAtMs >= whole.freshFromMs) };
  const suspicions = {
    down: suspicionOf(parted.down.input.segments, parted.down.input.occasions, 'down'),
    up: suspicionOf(parted.up.input.segments, parted.up.input.occasions, 'up'),
  };
  const deviceNames = new Map(given.devices.map(({ id, name }) => [id, name]));
  const ofCapacity = DIRECTIONS.flatMap((direction) => {
    const { segments, occasions } = parted[direction].input;
    const input: CapacityInput = {
      segments: new Map(segments.map((segment) => [segment.id, segment])),
      ...{ occasions, across: acrossOf(occasions), direction, suspicion: suspicions[direction] },
      ...{ plan: given.plan, deviceNames },
    };
    const least = leastFinding(input);
    return [...capacityFindings(input), ...(least === null ? [] : [least])];
  });
  const sags = DIRECTIONS.flatMap((direction) => parted[direction].finding ?? []);
  const findings = [
    ...slowPorts(given),
    ...ofCapacity,
    ...sags,
    ...deepQueuesOf(given.occasions).map((queue) => queueFinding(queue, given)),
    ...DIRECTIONS.flatMap((direction) => tunnelEnds(given, direction)),
    ...losses(given),
    ...peerLimit(given),
    ...DIRECTIONS.flatMap((direction) => contradictions(given, direction)),
  ];
  return {
    findings: inOrder(withoutDoubles(findings)),
    segments: statesOf(given, suspicions),
    occasions: given.occasions.length,
  };
}
