import { isDelay, MINUTE_MS, outagesOf, unpackMinute, type LaneMinute, type WatchedLane } from '@/core';
import type { StoredLane, StoredOutage } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** What came before the new minutes and may belong to the same outage. */
const BEFORE_MS = 5 * MINUTE_MS;
/** One that begins this near to the edge of what is looked at went on from before it, in pauses of its lane. */
const EDGE_PAUSES = 2;

/** All requests of a lane in some minutes, in the order of time. */
export const echoesOf = (minutes: readonly LaneMinute[], laneId: string) =>
  minutes.filter((minute) => minute.laneId === laneId).flatMap(({ fromMs, raw }) => unpackMinute(fromMs, raw));

/** When the last request of some lanes was sent in a minute that began before a moment; null: none is known. */
async function lastAskedMs({ store }: Pick<ConsoleContext, 'store'>, laneIds: readonly string[], beforeMs?: number) {
  const newest = await store.lanes.newestMinute(laneIds, beforeMs);
  if (newest === null) return null;
  const minutes = await store.lanes.minutes(laneIds, newest, newest + MINUTE_MS);
  return Math.max(newest, ...minutes.flatMap(({ fromMs, raw }) => unpackMinute(fromMs, raw).map(({ atMs }) => atMs)));
}

/** An outage of which nothing was heard for so long may be over: its machine cannot say. */
const HEARD_MS = 4 * MINUTE_MS;

/**
 * Outages that touch a stretch of time, the newest first. One that goes on and of which nothing more was heard ends with the last
 * request that is known: what was afterwards, nobody knows.
 */
export async function outagesAsHeard(
  context: Pick<ConsoleContext, 'store' | 'wallMs'>,
  siteId: string,
  fromMs: number,
  untilMs: number,
): Promise<StoredOutage[]> {
  const outages = await context.store.lanes.outages(siteId, fromMs, untilMs);
  return Promise.all(
    outages.map(async (outage) => {
      if (outage.untilMs !== null) return outage;
      const askedMs = await lastAskedMs(context, outage.laneIds);
      const isHeard = askedMs !== null && context.wallMs() - askedMs <= HEARD_MS + MINUTE_MS;
      return isHeard ? outage : { ...outage, untilMs: askedMs ?? outage.fromMs };
    }),
  );
}

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
  // A device that tells its counters no more, or a radio without an access point, says nothing of who is silent.
  const lanes = (await queries.ofDevice(deviceId)).filter(({ kind }) => isDelay(kind));
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
  const air = found.length > 0 && (await isByAir(context, deviceId));
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
    // Minutes that come once more say nothing of what came after them.
    const knownEndMs = outage.untilMs === null ? (before?.untilMs ?? null) : null;
    return {
      ...outage,
      id,
      siteId,
      deviceId,
      air,
      fromMs: goesOn ? Math.min(before.fromMs, outage.fromMs) : outage.fromMs,
      untilMs: knownEndMs !== null && knownEndMs >= untilMs ? knownEndMs : outage.untilMs,
    };
  });
  // What began before is not all in what was looked at: it stays unless it is seen to go on.
  const gone = known.filter(({ id, fromMs: begin }) => begin >= windowMs && !taken.has(id)).map(({ id }) => id);
  // Its machine was away since: it ends where nobody asked any more.
  const over = await Promise.all(
    known
      .filter(({ id, untilMs: end, fromMs: begin }) => begin < windowMs && end === null && !taken.has(id))
      .map(async (outage) => ({
        ...outage,
        untilMs: (await lastAskedMs(context, outage.laneIds, windowMs)) ?? outage.fromMs,
      })),
  );
  if (gone.length + kept.length + over.length > 0) await queries.replaceOutages(deviceId, gone, [...kept, ...over]);
  const goOn = (of: readonly StoredOutage[]) =>
    of.filter((outage) => outage.untilMs === null).map(({ id, fault }) => `${id} ${fault}`);
  return (
    goOn(known).sort().join() !==
    goOn([...kept, ...over])
      .sort()
      .join()
  );
}
