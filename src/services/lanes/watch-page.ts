import {
  availabilityOf,
  faultWords,
  isLoad,
  markEffect,
  markDiffers,
  markEffectWords,
  markRateDiffers,
  markRates,
  markRateWords,
  BESIDE_MARK_MS,
  type Availability,
} from '@/core';
import type { StoredLane, StoredMark, StoredOutage } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { outagesAsHeard } from './outages';
import { isWatchable } from './page-lanes';
import { busyOf, type ShownBusyTime } from './shown-busy';
import { slowOf, type ShownSlowTime } from './shown-slow';
import { stepsByLane, type ShownSteps } from './steps-of-span';
import { longRunsBetween, runsBeside, type ShownRun } from './watched-runs';

export type { ShownSteps } from './steps-of-span';

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
/** Of so many marks, the newest, it is worked out what they did. */
const MARKS_TOLD = 24;
/** An outage is told of in the list for so long. */
export const OUTAGES_DAYS = 31;

export interface ShownLane extends Pick<StoredLane, 'id' | 'name' | 'kind' | 'target' | 'role' | 'everyMs'> {
  readonly asked: boolean;
  /** Has it ever answered? One that has not tells nothing. */
  readonly answered: boolean;
  readonly steps: ShownSteps;
}

export interface ShownOutage extends Pick<StoredOutage, 'id' | 'fault' | 'laneIds' | 'fromMs' | 'untilMs'> {
  readonly deviceId: string;
  readonly deviceName: string;
  readonly sentence: string;
}

export interface ShownMark extends StoredMark {
  /** Of each lane that was asked then, what it did. */
  readonly effects: readonly { readonly laneName: string; readonly sentence: string; readonly differs: boolean }[];
}

export interface ShownMachine {
  readonly deviceId: string;
  readonly name: string;
  /** What it does just now; `away`: its page is closed, or it is silent. */
  readonly state: 'stands-by' | 'measures' | 'away';
  /** Whether it keeps what it hears until it is back. */
  readonly isAgent: boolean;
  readonly lanes: readonly ShownLane[];
  /** Of its lines outside, over the span that is shown. */
  readonly availability: Availability;
}

/** Lanes of an office over a span of time. */
export interface WatchedSpan {
  readonly fromMs: number;
  readonly untilMs: number;
  readonly machines: readonly ShownMachine[];
  readonly outages: readonly ShownOutage[];
  readonly marks: readonly ShownMark[];
  /** When a line was busy by its router's counters, the newest first. */
  readonly busy: readonly ShownBusyTime[];
  /** When answers came much later than usual, the newest first. */
  readonly slow: readonly ShownSlowTime[];
  /** Runs of the span, as lanes of their own. */
  readonly runs: readonly ShownRun[];
  /** Devices that can be asked to measure just now. */
  readonly standing: readonly { readonly deviceId: string; readonly name: string; readonly isAgent: boolean }[];
  /** Peers that a page which stands by can ask. */
  readonly peers: readonly { readonly id: string; readonly name: string }[];
}

/** For how long somebody asked at all, ms: of several lanes over the same time once. */
function watchedMsOf(lanes: readonly ShownLane[]): number {
  const asked = new Map<number, number>();
  for (const { steps, everyMs } of lanes)
    steps.atMs.forEach((atMs, place) => {
      // Lanes ask at their own moments: those of a second are one.
      const key = steps.stepMs === 0 ? Math.floor(atMs / everyMs) : atMs;
      const ms = steps.stepMs === 0 ? everyMs : Math.min(steps.stepMs, steps.sent[place]! * everyMs);
      asked.set(key, Math.max(asked.get(key) ?? 0, ms));
    });
  return [...asked.values()].reduce((sum, ms) => sum + ms, 0);
}

const isOutside = ({ role }: Pick<StoredLane, 'role'>) => role === 'outside' || role === 'far';

async function shownMark(
  context: ConsoleContext,
  mark: StoredMark,
  lanes: readonly StoredLane[],
  nowMs: number,
): Promise<ShownMark> {
  // What others moved meanwhile is nothing that what was marked did.
  const told = lanes.filter(({ kind }) => !isLoad(kind) && kind !== 'link-rate');
  // One that nobody ended is told by its first day.
  const untilMs = Math.min(mark.untilMs ?? nowMs, mark.fromMs + DAY_MS);
  const span = { fromMs: mark.fromMs, untilMs };
  const minutes = await context.store.lanes.steps(
    told.map(({ id }) => id),
    MINUTE_MS,
    span.fromMs - BESIDE_MARK_MS,
    span.untilMs + BESIDE_MARK_MS,
  );
  const effects = told.flatMap(({ id, name, kind }) => {
    const own = minutes.filter(({ laneId }) => laneId === id);
    if (own.length === 0) return [];
    const effect = markEffect(own, span);
    return [{ laneName: name, sentence: markEffectWords(effect, kind), differs: markDiffers(effect) }];
  });
  const runs = await longRunsBetween(context, mark.siteId, span.fromMs, span.untilMs);
  const rates = runs.flatMap((run) =>
    markRates(run, span).map((rate) => ({
      ...{ laneName: `${run.deviceName}, soak ${rate.way}`, sentence: markRateWords(rate) },
      differs: markRateDiffers(rate),
    })),
  );
  return { ...mark, effects: [...effects, ...rates] };
}

/** The lanes of an office over a span of time, with what was silent in it and whose fault that was. */
export async function watchedSpanOf(
  context: ConsoleContext,
  siteId: string,
  { fromMs, untilMs }: { readonly fromMs: number; readonly untilMs: number },
): Promise<Outcome<WatchedSpan, 'site-missing'>> {
  const { lanes: queries, sites, agents } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const nowMs = context.wallMs();
  const [all, devices, peers, machines] = await Promise.all([
    queries.ofSite(siteId),
    sites.devicesOf(siteId),
    sites.peersOf(siteId),
    agents.ofSite(siteId),
  ]);
  // What is asked no more is shown where it still lies in the span.
  const lanes = all.filter(({ removedAtMs }) => removedAtMs === null || removedAtMs > fromMs);
  const nameOf = (deviceId: string) =>
    devices.find(({ id }) => id === deviceId)?.name ?? beside.devices.get(deviceId) ?? 'a machine that was removed';
  const [steps, outages, marks, beside] = await Promise.all([
    stepsByLane(
      context,
      lanes.map(({ id }) => id),
      fromMs,
      untilMs,
    ),
    outagesAsHeard(context, siteId, fromMs, untilMs),
    queries.marks(siteId, fromMs, untilMs),
    runsBeside(
      context,
      siteId,
      machines.map(({ deviceId }) => deviceId),
      { fromMs, untilMs },
    ),
  ]);
  const stateOf = (id: string): ShownMachine['state'] => {
    if (beside.measuring.has(id)) return 'measures';
    return context.standing.isPresent(id) ? 'stands-by' : 'away';
  };
  const isAgent = (id: string) => machines.some(({ deviceId }) => deviceId === id);
  // Pages that keep lanes, and devices that measured for long.
  const others = new Set(
    [...lanes.map(({ deviceId }) => deviceId), ...beside.devices.keys()].filter((id) => !isAgent(id)),
  );
  const shown = [...machines.map(({ deviceId }) => deviceId), ...others].map((deviceId): ShownMachine => {
    const own = lanes
      .filter((lane) => lane.deviceId === deviceId)
      .map((lane): ShownLane => ({
        ...{ id: lane.id, name: lane.name, kind: lane.kind, target: lane.target, role: lane.role },
        ...{ everyMs: lane.everyMs, asked: lane.removedAtMs === null, answered: lane.answeredAtMs !== null },
        steps: steps(lane.id),
      }));
    return {
      ...{ deviceId, name: nameOf(deviceId), isAgent: isAgent(deviceId), state: stateOf(deviceId) },
      lanes: own,
      availability: availabilityOf(
        outages.filter((outage) => outage.deviceId === deviceId),
        watchedMsOf(own.filter(isOutside)),
        fromMs,
        Math.min(untilMs, nowMs),
      ),
    };
  });
  const busy = await busyOf(context, siteId, shown);
  return done({
    ...{
      fromMs,
      untilMs,
      runs: beside.runs,
      busy,
      slow: await slowOf(context, shown, busy, { siteId, fromMs, untilMs }),
    },
    standing: devices
      .filter(({ id }) => context.standing.isPresent(id))
      // Those whose delay is watched anyway come first.
      .sort((a, b) => Number(isAgent(b.id)) - Number(isAgent(a.id)))
      .map(({ id, name }) => ({ deviceId: id, name, isAgent: isAgent(id) })),
    peers: peers.filter(isWatchable).map(({ id, name }) => ({ id, name })),
    machines: shown.filter(({ deviceId, lanes: own }) => own.length > 0 || beside.devices.has(deviceId)),
    outages: outages.map((outage) => ({
      ...{
        id: outage.id,
        fault: outage.fault,
        laneIds: outage.laneIds,
        fromMs: outage.fromMs,
        untilMs: outage.untilMs,
      },
      ...{ deviceId: outage.deviceId, deviceName: nameOf(outage.deviceId) },
      sentence: faultWords(
        outage.fault,
        all.filter(({ id }) => outage.laneIds.includes(id)).map(({ name }) => name),
        outage.air,
      ),
    })),
    marks: await Promise.all(
      marks.map((mark, place) => shownMark(context, mark, place < MARKS_TOLD ? lanes : [], nowMs)),
    ),
  });
}
