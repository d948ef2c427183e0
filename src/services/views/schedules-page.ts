import {
  dueTimes,
  MISSED_WORDS,
  minutesOfDay,
  runsAWeek,
  scheduleWords,
  type MissedWhy,
  type Reach,
  type Schedule,
  type ScheduledFor,
} from '@/core';
import type { Device, StoredSchedule } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { expectedBytes, lineBudget, scheduledDevices, zoneClock, type LineBudget } from '../schedules';

const DAY_MS = 24 * 3600_000;
const WEEK_MS = 7 * DAY_MS;
const WEEKS_A_MONTH = 365.25 / 12 / 7;
/** The next time is looked for so far ahead. */
const AHEAD_MS = 8 * DAY_MS;
const MOST_MISSED = 12;

/** A time that brought no run, and why. */
export interface MissedTime {
  readonly dueAtMs: number;
  readonly deviceName: string;
  readonly reach: Reach;
  readonly why: string;
}

/** A schedule as it is shown. */
export interface ShownSchedule extends Pick<StoredSchedule, 'id' | 'paused' | 'byName' | 'spreadMinutes'> {
  readonly words: string;
  readonly who: string;
  readonly days: readonly number[];
  /** Minutes of a day at which it begins. */
  readonly minutes: readonly number[];
  /** The devices that it is for now. */
  readonly devices: readonly string[];
  readonly runsAWeek: number;
  /** What it will move in a month, bytes; null: not known. `without`: places of which it is not known. */
  readonly bytesAMonth: number | null;
  readonly without: number;
  readonly nextAtMs: number | null;
  /** Of the last seven days. */
  readonly made: number;
  readonly missed: number;
  readonly missedTimes: readonly MissedTime[];
}

export interface SchedulesPage {
  readonly schedules: readonly ShownSchedule[];
  readonly budgets: readonly LineBudget[];
}

/** What a schedule moves in a month for these devices, as far as that is known. */
export async function bytesAMonth(
  context: ConsoleContext,
  schedule: Schedule,
  devices: readonly Device[],
): Promise<{ readonly bytes: number | null; readonly without: number }> {
  const times = schedule.days.length * minutesOfDay(schedule.times).length;
  const places = devices.flatMap((device) => schedule.reaches.map((reach) => [device, reach] as const));
  const each = await Promise.all(
    places.map(([device, reach]) => expectedBytes(context, device, reach, schedule.profile)),
  );
  const known = each.filter((bytes) => bytes !== null);
  const sum = known.reduce((all, bytes) => all + bytes, 0);
  return { bytes: known.length === 0 ? null : sum * times * WEEKS_A_MONTH, without: each.length - known.length };
}

async function whoWords({ store }: ConsoleContext, siteId: string, who: ScheduledFor): Promise<string> {
  switch (who.kind) {
    case 'device':
      return (await store.sites.device(who.deviceId))?.name ?? 'a device that was removed';
    case 'spot': {
      const spot = (await store.sites.spotsOf(siteId)).find(({ id }) => id === who.spotId);
      return spot === undefined ? 'a spot that was removed' : `all agents at ${spot.name}`;
    }
    case 'device-kind':
      return `all agents of the kind ${who.deviceKind}`;
    case 'office':
      return 'all agents of the office';
  }
}

async function shown(context: ConsoleContext, of: StoredSchedule, timeZone: string | null): Promise<ShownSchedule> {
  const { store } = context;
  const nowMs = context.wallMs();
  const [devices, times, names] = await Promise.all([
    scheduledDevices(context, of),
    store.schedules.timesOf(of.siteId, nowMs - WEEK_MS, nowMs + DAY_MS),
    store.sites.devicesOf(of.siteId),
  ]);
  const own = times.filter(({ scheduleId }) => scheduleId === of.id);
  const missed = own.filter(({ state }) => state === 'missed');
  const moved = await bytesAMonth(context, of.schedule, devices);
  const nameOf = (deviceId: string) => names.find(({ id }) => id === deviceId)?.name ?? 'a device that was removed';
  const [next] = of.paused ? [] : dueTimes(of.schedule, zoneClock(timeZone), nowMs, nowMs + AHEAD_MS);
  return {
    ...{ id: of.id, paused: of.paused, byName: of.byName, spreadMinutes: of.spreadMinutes },
    ...{ words: scheduleWords(of.schedule), who: await whoWords(context, of.siteId, of.who) },
    ...{ days: of.schedule.days, minutes: minutesOfDay(of.schedule.times) },
    devices: devices.map(({ name }) => name),
    runsAWeek: runsAWeek(of.schedule) * devices.length,
    ...{ bytesAMonth: moved.bytes, without: moved.without },
    nextAtMs: next ?? null,
    ...{ made: own.filter(({ state }) => state === 'made').length, missed: missed.length },
    missedTimes: missed.slice(0, MOST_MISSED).map(({ dueAtMs, deviceId, reach, why }) => ({
      ...{ dueAtMs, reach, deviceName: nameOf(deviceId) },
      why: MISSED_WORDS[why as MissedWhy],
    })),
  };
}

/** When what is measured at an office without a person, what that moves, and what became of it. */
export async function schedulesPageOf(context: ConsoleContext, siteId: string): Promise<SchedulesPage> {
  const { schedules, sites } = context.store;
  const [site, found, lines] = await Promise.all([sites.byId(siteId), schedules.ofSite(siteId), sites.linesOf(siteId)]);
  return {
    schedules: await Promise.all(found.map((each) => shown(context, each, site?.timeZone ?? null))),
    budgets: await Promise.all(lines.map((line) => lineBudget(context, line))),
  };
}
