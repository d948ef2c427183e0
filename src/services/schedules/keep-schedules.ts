import { dueTimes, spreadMs, type MissedWhy, type ZoneClock } from '@/core';
import type { ScheduledTime, StoredSchedule } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { canLoadWeb, peerFor } from '../office/peer-choice';
import { queueTurn, withdrawTurn } from '../turns';
import { expectedBytes, lineBudget } from './data-volume';
import { scheduledDevices } from './scheduled-devices';
import { schedulerName } from './schedules';
import { zoneClock } from './zone-clock';

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
/** A time that is further past is not made up for: the console was off. */
const TOO_LATE_MS = 5 * MINUTE_MS;
/** So long a time waits for a device that is away for a moment. */
const AWAY_MS = MINUTE_MS;
/** So long it waits for a hunt, for a round or for its turn. */
const HELD_MS = 15 * MINUTE_MS;
/** A hunt that nobody touched for so long is not under way. */
const HUNT_RESTS_MS = 15 * MINUTE_MS;
/** Of a console that was off for long, no more times than those of so long are written down as missed. */
const REMEMBER_MS = 7 * DAY_MS;
/** What became of a time is told for so long. */
const KEEP_TIMES_MS = 100 * DAY_MS;

const clocks = new Map<string | null, ZoneClock>();
/** Looking a zone up takes a while; there are few. */
function clockOf(timeZone: string | null): ZoneClock {
  let clock = clocks.get(timeZone);
  if (clock === undefined) clocks.set(timeZone, (clock = zoneClock(timeZone)));
  return clock;
}

/** Writes down the times that have come since the last look. */
async function writeDue(
  context: ConsoleContext,
  of: StoredSchedule,
  timeZone: string | null,
  nowMs: number,
): Promise<void> {
  const due = dueTimes(of.schedule, clockOf(timeZone), Math.max(of.doneUntilMs, nowMs - REMEMBER_MS), nowMs);
  // Nothing is written while no time has come: the next look begins at the same place.
  if (due.length === 0) return;
  const devices = await scheduledDevices(context, of);
  const times = due.flatMap((dueAtMs) =>
    devices.flatMap(({ id: deviceId }) =>
      of.schedule.reaches.map((reach): ScheduledTime => {
        const late = nowMs - dueAtMs > TOO_LATE_MS;
        return {
          ...{ id: context.newId(), scheduleId: of.id, siteId: of.siteId, deviceId, reach, dueAtMs },
          beginAtMs: dueAtMs + spreadMs(of.spreadMinutes, deviceId, dueAtMs),
          ...{ state: late ? 'missed' : 'waits', why: late ? 'console-off' : null, turnId: null, runId: null },
        };
      }),
    ),
  );
  // A clock that was set back must not bring the same times again.
  await context.store.schedules.addTimes(of.id, times, Math.max(of.doneUntilMs, nowMs));
}

/** Whether somebody is looking for something at the office just now: a schedule would be in the way. */
async function huntGoesOn({ store }: ConsoleContext, siteId: string, nowMs: number): Promise<boolean> {
  const open = (await store.findings.huntsOf(siteId)).filter(({ closedAtMs }) => closedAtMs === null);
  for (const { id, openedAtMs } of open) {
    const lastMs = Math.max(openedAtMs, ...(await store.findings.stepsOf(id)).map(({ atMs }) => atMs));
    if (nowMs - lastMs < HUNT_RESTS_MS) return true;
  }
  return false;
}

const isScheduler = (askedBy: string | null) => askedBy?.startsWith('schedule: ') === true;

/** Whether a technician has asked for runs that are still to come. */
async function roundGoesOn({ store }: ConsoleContext, siteId: string): Promise<boolean> {
  const open = await store.turns.open();
  return open.some((turn) => turn.siteId === siteId && turn.askedBy !== null && !isScheduler(turn.askedBy));
}

async function isOverBudget(context: ConsoleContext, of: StoredSchedule, time: ScheduledTime): Promise<boolean> {
  const peer = await peerFor(context, time.siteId, time.reach, await canLoadWeb(context, time.deviceId));
  if (peer === null) return false;
  const { line } = await crossingOf(context, time.siteId, peer, context.wallMs());
  if (line === null || line.budgetBytes === null) return false;
  const device = await context.store.sites.device(time.deviceId);
  const more = device === null ? null : await expectedBytes(context, device, time.reach, of.schedule.profile);
  const { movedBytes } = await lineBudget(context, line);
  return movedBytes + (more ?? 0) > line.budgetBytes;
}

/** Why a time cannot begin now; null: it can. */
async function hindrance(
  context: ConsoleContext,
  of: StoredSchedule,
  time: ScheduledTime,
  nowMs: number,
): Promise<{ readonly why: MissedWhy; readonly waitsMs: number } | null> {
  if ((await context.store.sites.device(time.deviceId)) === null) return { why: 'gone', waitsMs: 0 };
  if (await isOverBudget(context, of, time)) return { why: 'budget', waitsMs: 0 };
  if (await huntGoesOn(context, time.siteId, nowMs)) return { why: 'hunt', waitsMs: HELD_MS };
  if (await roundGoesOn(context, time.siteId)) return { why: 'round', waitsMs: HELD_MS };
  if (!context.standing.isPresent(time.deviceId)) return { why: 'away', waitsMs: AWAY_MS };
  return null;
}

/** Puts a time into the queue, or gives it up; false: it waits on. */
async function begin(
  context: ConsoleContext,
  of: StoredSchedule,
  time: ScheduledTime,
  nowMs: number,
): Promise<boolean> {
  const { schedules } = context.store;
  const hindered = await hindrance(context, of, time, nowMs);
  if (hindered !== null) {
    if (nowMs - time.beginAtMs < hindered.waitsMs) return false;
    await schedules.settle(time.id, { state: 'missed', why: hindered.why });
    return true;
  }
  const queued = await queueTurn(context, schedulerName(of), {
    ...{ siteId: time.siteId, deviceIds: [time.deviceId], reaches: [time.reach], times: 1, together: false },
    profile: of.schedule.profile,
  });
  if (queued.ok) await schedules.settle(time.id, { state: 'asked', turnId: queued.value });
  else await schedules.settle(time.id, { state: 'missed', why: 'no-peer' });
  return true;
}

type Settled = Parameters<ConsoleContext['store']['schedules']['settle']>[1];

/** What became of the turn of a time; null: it goes on. */
async function becameOf(context: ConsoleContext, time: ScheduledTime, nowMs: number): Promise<Settled | null> {
  const { turns, runs } = context.store;
  const turn = time.turnId === null ? null : await turns.byId(time.turnId);
  const run = turn?.runId ? await runs.byId(turn.runId) : null;
  if (run?.status === 'finished') return { state: 'made', runId: run.id };
  if (run?.status === 'running') return null;
  if (run !== null) return { state: 'missed', why: 'unfinished', runId: run.id };
  if (turn?.status === 'waiting' || turn?.status === 'asked') {
    if (nowMs - time.beginAtMs < HELD_MS) return null;
    await withdrawTurn(context, turn.id);
    return { state: 'missed', why: 'no-turn' };
  }
  const why = turn?.status === 'refused' || turn?.status === 'withdrawn' ? turn.status : 'away';
  return { state: 'missed', why };
}

async function follow(context: ConsoleContext, time: ScheduledTime, nowMs: number): Promise<boolean> {
  const became = await becameOf(context, time, nowMs);
  if (became === null) return false;
  await context.store.schedules.settle(time.id, became);
  return true;
}

/** Keeps all schedules: writes down what is due, puts it into the queue, and sees what came of it. */
export async function keepSchedules(context: ConsoleContext): Promise<void> {
  const { schedules, sites } = context.store;
  const nowMs = context.wallMs();
  const going = await schedules.going();
  // Asked once for all: there may be many offices, and they are looked at every few seconds.
  const zones = new Map(going.length === 0 ? [] : (await sites.all()).map(({ id, timeZone }) => [id, timeZone]));
  for (const each of going) await writeDue(context, each, zones.get(each.siteId) ?? null, nowMs);
  let moved = false;
  for (const time of await schedules.open(nowMs)) {
    const of = await schedules.byId(time.scheduleId);
    if (of === null) continue;
    const act = time.state === 'waits' ? begin(context, of, time, nowMs) : follow(context, time, nowMs);
    moved = (await act) || moved;
  }
  if (moved) context.changes.tell('presence');
}

/** What became of times of long ago is forgotten. */
export async function forgetOldTimes({ store, wallMs }: ConsoleContext): Promise<void> {
  await store.schedules.forgetBefore(wallMs() - KEEP_TIMES_MS);
}
