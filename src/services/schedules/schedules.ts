import { readSchedule, scheduleWords, type ScheduledFor } from '@/core';
import type { StoredSchedule } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { withdrawTurn } from '../turns';

/** A schedule as it was typed, and for whom. */
export interface ScheduleOrder {
  readonly siteId: string;
  readonly sentence: string;
  readonly who: ScheduledFor;
  readonly spreadMinutes: number;
}

async function whoFault(
  { store }: ConsoleContext,
  siteId: string,
  who: ScheduledFor,
): Promise<'device-unknown' | 'spot-unknown' | null> {
  switch (who.kind) {
    case 'device':
      return (await store.sites.device(who.deviceId))?.siteId === siteId ? null : 'device-unknown';
    case 'spot':
      return (await store.sites.spotsOf(siteId)).some(({ id }) => id === who.spotId) ? null : 'spot-unknown';
    case 'device-kind':
    case 'office':
      return null;
  }
}

/** Begins to keep a schedule: from now on, not for what is past. */
export async function makeSchedule(
  context: ConsoleContext,
  byName: string,
  { siteId, sentence, who, spreadMinutes }: ScheduleOrder,
): Promise<Outcome<StoredSchedule, ConsoleFaultCode>> {
  const { store } = context;
  if ((await store.sites.byId(siteId)) === null) return failed('site-missing');
  const read = readSchedule(sentence);
  if (!read.ok) return failed('schedule-unreadable', { complaint: read.faults.map((each) => each.sentence).join(' ') });
  const fault = await whoFault(context, siteId, who);
  if (fault !== null) return failed(fault);
  const nowMs = context.wallMs();
  const made = {
    ...{ id: context.newId(), siteId, who, schedule: read.schedule, spreadMinutes, paused: false },
    ...{ byName, madeAtMs: nowMs, doneUntilMs: nowMs },
  };
  await store.schedules.save(made);
  return done(made);
}

/** Stops keeping a schedule for a while, or goes on with it: what was due meanwhile is not made up for. */
export async function pauseSchedule(
  context: ConsoleContext,
  id: string,
  paused: boolean,
): Promise<Outcome<StoredSchedule, 'schedule-unknown'>> {
  const { schedules } = context.store;
  const before = await schedules.byId(id);
  if (before === null) return failed('schedule-unknown');
  const after = { ...before, paused, doneUntilMs: context.wallMs() };
  await schedules.save(after);
  if (paused) await withdrawOpen(context, id);
  return done(after);
}

/** A schedule and what is told of its times go; the runs stay. */
export async function removeSchedule(context: ConsoleContext, id: string): Promise<Outcome<null, 'schedule-unknown'>> {
  const { schedules } = context.store;
  if ((await schedules.byId(id)) === null) return failed('schedule-unknown');
  await withdrawOpen(context, id);
  await schedules.remove(id);
  return done(null);
}

/** Takes what it has in the queue out of it. */
async function withdrawOpen(context: ConsoleContext, scheduleId: string): Promise<void> {
  const { schedules } = context.store;
  for (const time of await schedules.openOf(scheduleId)) {
    if (time.turnId !== null) await withdrawTurn(context, time.turnId);
    await schedules.settle(time.id, { state: 'missed', why: 'withdrawn' });
  }
}

/** What whoever asked for a scheduled run is called, in tray and record. */
export const schedulerName = ({ schedule }: Pick<StoredSchedule, 'schedule'>) =>
  `schedule: ${scheduleWords(schedule)}`.slice(0, 120);
