import { planPayloadBps, type Direction } from '../domain/plan';
import { median } from '../stats/percentile';
import type { DiagnosisInput } from './diagnosis-input';
import type { Finding } from './finding';
import { mayAccuse } from './observation';
import { classesOf, fallsShort, inTime, soundOf } from './proof';
import { segmentBase } from './segment';

/** A cable that came up at half of the others' rate, or less. */
const SLOW_PORT = 0.5;
/** What a tunnel's own headers and work leave of its slower end; below that something else holds back. */
const TUNNEL_GIVES = 0.8;
/** A share of repeats from which on a path loses packets: a line that drops 1 % gives a third. */
const LOSES_FROM = 0.005;
/** A full queue drops as well: whoever waits in one from this on has not lost on the way, ms. */
const FULL_QUEUE_MS = 8;
const LEAST_LOSING = 2;
/** Two newest occasions of one path and one hour, further apart than this, contradict each other. */
const CONTRADICTION = 1.6;
const DAY_MS = 24 * 3600_000;

/** Cables that came up slower than the other cables of the office: no inference, it was read. */
function slowPorts({ devices, occasions, segments }: DiagnosisInput): Finding[] {
  const cables = devices.flatMap(({ cableBps, ...device }) => (cableBps === null ? [] : [{ ...device, cableBps }]));
  return cables.flatMap(({ id, cableBps }) => {
    // What most of the others came up at; of an even number the faster of the two in the middle, never a rate between.
    const rates = cables.filter((other) => other.id !== id).map((other) => other.cableBps);
    const othersBps = rates.sort((a, b) => a - b)[Math.floor(rates.length / 2)];
    const segment = segments.findLast((each) => each.kind === 'cable' && each.deviceId === id);
    if (othersBps === undefined || segment === undefined || cableBps > SLOW_PORT * othersBps) return [];
    const own = occasions.filter(({ path }) => path.includes(segment.id)).sort((a, b) => b.startedAtMs - a.startedAtMs);
    return [
      {
        key: `cable-came-up-slow ${segmentBase(segment.id)}`,
        facts: {
          code: 'cable-came-up-slow',
          ...{ negotiatedBps: cableBps, othersBps, othersCount: rates.filter((rate) => rate >= othersBps).length },
          measuredBps: own.find(({ down }) => down !== null)?.down!.medianBps ?? null,
        },
        strength: 'fact',
        ...{ segments: [segment], hours: null, deviceIds: [id] },
        sinceMs: own.at(-1)?.startedAtMs ?? 0,
        evidence: { for: own.flatMap(({ runIds }) => runIds), against: [] },
        weight: 1 - cableBps / othersBps,
      } satisfies Finding,
    ];
  });
}

/** What a tunnel gives where the other office's line lets less through than this one's: no fault, and good to know. */
function tunnelEnds({ tunnelPlans, segments, occasions, plan: own }: DiagnosisInput, direction: Direction): Finding[] {
  return [...tunnelPlans].flatMap(([id, plan]) => {
    const segment = segments.find((each) => segmentBase(each.id) === id);
    const through = occasions.filter(
      ({ path, [direction]: rate }) => rate !== null && segment !== undefined && path.includes(segment.id),
    );
    const measuredBps = median(through.map(({ [direction]: rate }) => rate!.medianBps));
    const promised = planPayloadBps(plan, direction);
    if (segment === undefined || measuredBps === null || measuredBps < TUNNEL_GIVES * promised) return [];
    if (own === null || promised >= own.fullFrom * planPayloadBps(own, direction)) return [];
    return [
      {
        key: `tunnel-slower-end ${direction} ${segmentBase(id)}`,
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
  const onCable = [...classesOf(occasions).values()]
    .filter(([first]) => first!.path.some((id) => id.startsWith('cable:')))
    .flat();
  const losing = onCable.filter(
    ({ resentShare, addedDownMs }) =>
      resentShare !== null && resentShare >= LOSES_FROM && (addedDownMs ?? 0) < FULL_QUEUE_MS,
  );
  const slow = losing.filter(({ path, down }) => {
    const sound = soundOf(path, new Map(segments.map((each) => [each.id, each])), 'down');
    return down !== null && fallsShort(down.medianBps, sound);
  });
  const runs = slow.flatMap(({ runIds }) => runIds);
  if (runs.length < LEAST_LOSING) return [];
  // What is crossed without loss, or by others without being slowed down, does not lose.
  const slowed = new Set(slow.map(({ deviceId }) => deviceId));
  const against = onCable.filter((each) => !losing.includes(each) || !slowed.has(each.deviceId));
  const crossed = new Set(against.flatMap(({ path }) => path));
  const common = slow.map(({ path }) => path).reduce((all, path) => all.filter((id) => path.includes(id)));
  const left = common.filter((id) => !crossed.has(id));
  const shared = left.length === 0 ? common : left;
  return [
    {
      key: `packets-lost ${shared.map(segmentBase).join(' ')}`,
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
        against: against.flatMap(({ runIds }) => runIds),
      },
      weight: new Set(slow.map(({ deviceId }) => deviceId)).size * 0.5,
    },
  ];
}

function peerLimit({ plan, outsidePeerBps, segments }: DiagnosisInput): Finding[] {
  const peer = segments.find(({ kind, id }) => kind === 'peer' && id.includes('internet'));
  if (plan === null || outsidePeerBps === null || peer === undefined) return [];
  if (outsidePeerBps >= plan.fullFrom * planPayloadBps(plan, 'down')) return [];
  return [
    {
      key: `peer-below-plan ${segmentBase(peer.id)}`,
      facts: { code: 'peer-below-plan', peerBps: outsidePeerBps, plan },
      strength: 'fact',
      ...{ segments: [peer], hours: null, deviceIds: [], sinceMs: 0 },
      evidence: { for: [], against: [] },
      weight: 0.2,
    },
  ];
}

/** The last of a list that will do, and the one before it that will. */
function lastTwo<Value>(values: readonly Value[], willDo: (value: Value) => boolean): Value[] {
  const last: Value[] = [];
  for (let place = values.length - 1; place >= 0 && last.length < 2; place -= 1)
    if (willDo(values[place]!)) last.push(values[place]!);
  return last;
}

/** Two newest occasions of one path and about one hour that cannot both be its figure: shown, not averaged away. */
function contradictions({ occasions, segments }: DiagnosisInput, direction: Direction): Finding[] {
  const known = new Map(segments.map((each) => [each.id, each]));
  return [...classesOf(occasions).values()].flatMap((of) => {
    // One of which it is known why it is another contradicts nothing.
    const [newest, before] = lastTwo(inTime(of), (each) => each[direction] !== null && mayAccuse(each));
    if (newest === undefined || before === undefined) return [];
    if (newest.startedAtMs - before.startedAtMs > 2 * DAY_MS) return [];
    const [a, b] = [newest[direction]!.medianBps, before[direction]!.medianBps];
    if (Math.max(a, b) / Math.min(a, b) < CONTRADICTION || newest.path.some((id) => id.startsWith('air:'))) return [];
    const last = known.get(newest.path[1]!);
    return [
      {
        key: `contradicting-runs ${direction} ${newest.path.map(segmentBase).join(' ')}`,
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

/** What is read off the runs and the set-up, without any inference. `input`: what stands now. */
export function factFindings(input: DiagnosisInput): Finding[] {
  return [
    ...slowPorts(input),
    ...losses(input),
    ...peerLimit(input),
    ...(['down', 'up'] as const).flatMap((direction) => [
      ...tunnelEnds(input, direction),
      ...contradictions(input, direction),
    ]),
  ];
}
