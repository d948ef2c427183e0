import { outagesOf, unpackMinute, type LaneMinute, type WatchedLane } from '@/core';
import type { StoredLane, StoredOutage } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const MINUTE_MS = 60_000;
/** What came before the new minutes and may belong to the same outage. */
const BEFORE_MS = 5 * MINUTE_MS;
/** One that begins this near to the edge of what is looked at went on from before it, in pauses of its lane. */
const EDGE_PAUSES = 2;

/** All requests of a lane in some minutes, in the order of time. */
export const echoesOf = (minutes: readonly LaneMinute[], laneId: string) =>
  minutes.filter((minute) => minute.laneId === laneId).flatMap(({ fromMs, raw }) => unpackMinute(fromMs, raw));

async function isByAir({ store }: ConsoleContext, deviceId: string): Promise<boolean> {
  const facts = (await store.agents.byDevice(deviceId))?.facts;
  const way = facts?.links.find(({ name }) => name === facts.gateway?.link);
  return way?.medium === 'wifi';
}

/**
 * Works out anew what was silent around new minutes of a machine. An outage that was known already and goes on keeps its id and
 * its begin. True when another one goes on than before.
 */
export async function refreshOutages(
  context: ConsoleContext,
  { deviceId, siteId }: Pick<StoredLane, 'deviceId' | 'siteId'>,
  fromMs: number,
  untilMs: number,
): Promise<boolean> {
  const { lanes: queries } = context.store;
  const lanes = await queries.ofDevice(deviceId);
  const windowMs = fromMs - BEFORE_MS;
  const minutes = await queries.minutes(
    lanes.map(({ id }) => id),
    windowMs,
    untilMs,
  );
  const watched = lanes
    .map(({ id, role, everyMs }): WatchedLane => ({ laneId: id, role, everyMs, echoes: echoesOf(minutes, id) }))
    .filter(({ echoes }) => echoes.length > 0);
  const neverAnswered = new Set(lanes.filter(({ answeredAtMs }) => answeredAtMs === null).map(({ id }) => id));
  const found = outagesOf(watched, neverAnswered);
  const known = (await queries.outages(siteId, windowMs, untilMs)).filter((outage) => outage.deviceId === deviceId);
  const air = await isByAir(context, deviceId);
  const taken = new Set<string>();
  const kept = found.map((outage): StoredOutage => {
    const edgeMs = windowMs + EDGE_PAUSES * Math.max(...watched.map(({ everyMs }) => everyMs));
    const before = known.find(
      ({ id, laneIds, fromMs: begin }) =>
        !taken.has(id) &&
        laneIds.some((laneId) => outage.laneIds.includes(laneId)) &&
        (Math.abs(begin - outage.fromMs) < MINUTE_MS || (outage.fromMs <= edgeMs && begin <= outage.fromMs)),
    );
    if (before !== undefined) taken.add(before.id);
    const id = before?.id ?? context.newId();
    const goesOn = before !== undefined && outage.fromMs <= edgeMs;
    return {
      ...outage,
      id,
      siteId,
      deviceId,
      air,
      fromMs: goesOn ? Math.min(before.fromMs, outage.fromMs) : outage.fromMs,
    };
  });
  // What began before is not all in what was looked at: it stays unless it is seen to go on.
  const gone = known.filter(({ id, fromMs: begin }) => begin >= windowMs && !taken.has(id)).map(({ id }) => id);
  const over = known
    .filter(({ id, untilMs: end, fromMs: begin }) => begin < windowMs && end === null && !taken.has(id))
    .map((outage) => ({ ...outage, untilMs: windowMs }));
  await queries.replaceOutages(deviceId, gone, [...kept, ...over]);
  const goOn = (of: readonly StoredOutage[]) =>
    of.filter((outage) => outage.untilMs === null).map(({ id, fault }) => `${id} ${fault}`);
  return (
    goOn(known).sort().join() !==
    goOn([...kept, ...over])
      .sort()
      .join()
  );
}
