import { LOOK_KINDS, type Schedule } from '@/core';
import type { ConsoleContext } from '@/services';
import type { ScheduledTime } from '@/store';
import { AGENT_PROTOCOL } from '@/wire';
import type { DemoDevice } from './scenario';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
const JOINED_DAYS_AGO = 40;
const TOLD_DAYS = 7;

interface SeededAgent {
  readonly siteId: string;
  readonly deviceId: string;
  readonly device: DemoDevice;
}

/** Lets a device of the demo be an agent that joined weeks ago. */
export async function seedAgent(
  { store, wallMs, version }: ConsoleContext,
  { siteId, deviceId, device }: SeededAgent,
  seenAgoMs: number,
): Promise<void> {
  if (device.machine === undefined) return;
  await store.agents.save({
    ...{ deviceId, siteId, version, protocol: AGENT_PROTOCOL, facts: device.machine, clockOffsetMs: 40, outbox: 0 },
    can: [...LOOK_KINDS],
    ...{ joinedAtMs: wallMs() - JOINED_DAYS_AGO * DAY_MS, seenAtMs: wallMs() - seenAgoMs },
  });
}

/** Another driver since an update, which nobody has looked at yet. */
export async function seedDriverChange(
  { store, newId, wallMs }: ConsoleContext,
  { siteId, deviceId }: SeededAgent,
): Promise<void> {
  const change = { link: 'eth0', fact: 'driver', before: 'r8168', after: 'r8169' } as const;
  await store.agents.addChanges([
    { ...change, id: newId(), deviceId, siteId, atMs: wallMs() - 11 * DAY_MS, seenAtMs: null },
  ]);
}

const EVERY_THREE_HOURS: Schedule = {
  ...{ days: [0, 1, 2, 3, 4, 5, 6], reaches: ['internet'], profile: 'standard' },
  times: { kind: 'every', minutes: 180, fromMinute: 135, untilMinute: 1395 },
};

/** The schedule by which the demo's history was made; paused, so that figures in the demo are what one measures oneself. */
export async function seedSchedule(context: ConsoleContext, { siteId, deviceId }: SeededAgent): Promise<void> {
  const { store, newId } = context;
  const nowMs = context.wallMs();
  const id = newId();
  await store.schedules.save({
    ...{ id, siteId, who: { kind: 'device', deviceId }, schedule: EVERY_THREE_HOURS, spreadMinutes: 5, paused: true },
    ...{ byName: 'Ines', madeAtMs: nowMs - JOINED_DAYS_AGO * DAY_MS, doneUntilMs: nowMs },
  });
  const runs = await store.schedules.startsOf(deviceId, nowMs - TOLD_DAYS * DAY_MS);
  const made = runs
    .filter(
      ({ startedAtMs }) => new Date(startedAtMs).getHours() % 3 === 2 && new Date(startedAtMs).getMinutes() === 17,
    )
    .map(({ id: runId, startedAtMs, reach }): ScheduledTime => ({
      ...{ id: newId(), scheduleId: id, siteId, deviceId, reach, dueAtMs: startedAtMs - 2 * MINUTE_MS },
      ...{ beginAtMs: startedAtMs, state: 'made', why: null, turnId: null, runId },
    }));
  const missed = (
    [
      [2.3 * DAY_MS, 'hunt'],
      [3.4 * DAY_MS, 'round'],
    ] as const
  ).map(([agoMs, why]): ScheduledTime => {
    const dueAtMs = Math.floor((nowMs - agoMs) / HOUR_MS) * HOUR_MS;
    return {
      ...{ id: newId(), scheduleId: id, siteId, deviceId, reach: 'internet', dueAtMs, beginAtMs: dueAtMs },
      ...{ state: 'missed', why, turnId: null, runId: null },
    };
  });
  await store.schedules.addTimes(id, [...made, ...missed], nowMs);
}
