import type { Reach, ScheduledFor } from '@/core';
import { noteInHunt, openHunt } from '../hunts';
import {
  deviceForm,
  furnish,
  openTestConsole,
  orderFor,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { saveDevice } from '../office';
import { askForRun, queueTurns, refuseTurn, withdrawTurn } from '../turns';
import { lastTurn, standingDevice, takeTurn, type StandingDevice } from '../turns/standing-for-tests';
import { schedulesPageOf } from '../views';
import { setBudget } from './budgets';
import { zoneClock } from './zone-clock';
import { keepSchedules, makeSchedule, pauseSchedule, removeSchedule } from '.';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;

describe('a schedule that is kept', () => {
  let console: TestConsole;
  let siteId: string;
  let desk: StandingDevice;
  beforeEach(async () => {
    // Tuesday, 24 November 2026, 9:00 UTC: ten in the morning in Berlin.
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    const { sites } = console.context.store;
    await sites.saveSite({ ...(await sites.byId(siteId))!, timeZone: 'Europe/Berlin' });
    desk = await standingDevice(console, siteId, { name: 'Press desk' });
  });
  afterEach(() => console.close());

  const made = async (
    sentence: string,
    {
      who = { kind: 'device', deviceId: desk.id },
      spreadMinutes = 0,
    }: { who?: ScheduledFor; spreadMinutes?: number } = {},
  ) => {
    const schedule = await makeSchedule(console.context, 'Ines', { siteId, sentence, who, spreadMinutes });
    if (!schedule.ok) throw new Error(schedule.fault.code);
    return schedule.value.id;
  };
  const keep = () => keepSchedules(console.context);
  /** Lets time pass, looking as often as the console does by itself, only coarser. */
  const pass = async (ms: number, stepMs = MINUTE_MS) => {
    for (let passed = 0; passed < ms; passed += stepMs) {
      console.advanceMs(Math.min(stepMs, ms - passed));
      await keep();
    }
  };
  const times = async () =>
    (await console.context.store.schedules.timesOf(siteId, 0, Number.MAX_SAFE_INTEGER))
      .map(({ dueAtMs, state, why, reach }) => ({
        at: new Date(dueAtMs).toISOString().slice(11, 16),
        state,
        why,
        reach,
      }))
      .reverse();
  const measure = (reach: Reach = 'internet') => takeTurn(console, desk, { profile: 'quick', reach });

  it('asks when its time has come, not before, and tells what came of it', async () => {
    await made('at 10:30 and 12');
    await pass(29 * MINUTE_MS);
    expect(await times()).toEqual([]);
    await pass(MINUTE_MS);
    expect(await times()).toEqual([{ at: '09:30', state: 'asked', why: null, reach: 'internet' }]);
    const runId = await measure();
    await keep();
    expect(await times()).toMatchObject([{ at: '09:30', state: 'made' }]);
    const run = await console.context.store.runs.byId(runId);
    expect(run).toMatchObject({ askedBy: 'schedule: at 10:30 and 12, every day, internet, quick', profile: 'quick' });
    expect(run!.movedBytes).toBeGreaterThan(1e8);
  });

  it('writes nothing while no time has come', async () => {
    await made('at 12');
    const before = (await console.context.store.schedules.ofSite(siteId))[0]!.doneUntilMs;
    await pass(30 * MINUTE_MS, 10_000);
    expect((await console.context.store.schedules.ofSite(siteId))[0]!.doneUntilMs).toBe(before);
    await pass(31 * MINUTE_MS);
    expect((await times()).length).toBe(0);
    await pass(HOUR_MS);
    expect(await times()).toMatchObject([{ at: '11:00' }]);
  });

  it('leaves the name and the place that the technician gave', async () => {
    const { context } = console;
    const { sites } = context.store;
    const moved = await saveDevice(context, siteId, desk.id, deviceForm({ name: 'Roof box', spotName: 'Roof' }));
    expect(moved.ok).toBe(true);
    await made('at 10:01');
    await pass(MINUTE_MS);
    const order = orderFor(null, {
      ...{ deviceId: desk.id, deviceName: null, spotName: null, turnId: lastTurn(desk), profile: 'quick' },
    });
    const granted = await askForRun(context, { ...STRANGER, cookie: desk.cookie }, order, 'http://192.0.2.20:4870');
    const runId = granted.ok && granted.value.status === 'granted' ? granted.value.runId : '';
    expect(await context.store.runs.byId(runId)).toMatchObject({ deviceName: 'Roof box', spotName: 'Roof' });
    const device = (await sites.device(desk.id))!;
    expect(device.name).toBe('Roof box');
    expect((await sites.spotsOf(siteId)).find(({ id }) => id === device.spotId)?.name).toBe('Roof');
  });

  it('measures each reach, one after the other', async () => {
    await made('at 10:01, local and internet');
    await pass(MINUTE_MS);
    expect((await times()).map(({ state, reach }) => [state, reach])).toEqual(
      expect.arrayContaining([
        ['asked', 'local'],
        ['asked', 'internet'],
      ]),
    );
    expect(desk.told.filter(({ kind }) => kind === 'asked')).toHaveLength(1);
  });

  it('begins later than due by no more than it may, the same for each look', async () => {
    await made('every 10 minutes', { spreadMinutes: 5 });
    await pass(HOUR_MS, 10_000);
    const all = await console.context.store.schedules.timesOf(siteId, 0, Number.MAX_SAFE_INTEGER);
    const late = all.map(({ beginAtMs, dueAtMs }) => beginAtMs - dueAtMs);
    expect(late.length).toBe(6);
    expect(Math.max(...late)).toBeLessThan(5 * MINUTE_MS);
    expect(new Set(late).size).toBe(6);
  });

  it('says of each time that was missed why', async () => {
    await desk.session.leave();
    await made('every 30 minutes');
    await pass(35 * MINUTE_MS);
    expect(await times()).toMatchObject([{ state: 'missed', why: 'away' }]);
    desk = await standingDevice(console, siteId, { id: desk.id });
    await pass(25 * MINUTE_MS);
    await refuseTurn(console.context, desk.id, lastTurn(desk));
    await keep();
    expect((await times()).at(-1)).toMatchObject({ state: 'missed', why: 'refused' });
    await pass(30 * MINUTE_MS);
    await withdrawTurn(console.context, lastTurn(desk));
    await keep();
    expect((await times()).at(-1)).toMatchObject({ state: 'missed', why: 'withdrawn' });
    await pass(30 * MINUTE_MS);
    await takeTurn(console, desk, { profile: 'quick', samples: false });
    await keep();
    expect((await times()).at(-1)).toMatchObject({ state: 'missed', why: 'unfinished' });
    const [shown] = (await schedulesPageOf(console.context, siteId)).schedules;
    expect(shown).toMatchObject({ made: 0, missed: 4 });
    expect(shown!.missedTimes.map(({ why }) => why)).toContain('the device did not stand by');
  });

  it('makes up for nothing that came while the console was off, and writes each such time down once', async () => {
    await made('every hour');
    await console.reopen();
    console.advanceMs(3 * HOUR_MS + 30 * MINUTE_MS);
    desk = await standingDevice(console, siteId, { id: desk.id });
    await keep();
    await keep();
    expect(await times()).toEqual(
      ['10:00', '11:00', '12:00'].map((at) => ({ at, state: 'missed', why: 'console-off', reach: 'internet' })),
    );
    expect(desk.told).toEqual([]);
  });

  it('of a console that was off for a year remembers no more than a week', async () => {
    await made('every hour');
    console.advanceMs(365 * 24 * HOUR_MS);
    await keep();
    expect((await times()).length).toBe(7 * 24);
  });

  it('waits while a technician’s runs are in the queue, and while a hunt goes on; then says so', async () => {
    await made('at 10:05 and 11');
    const other = await standingDevice(console, siteId, { name: 'Bench' });
    await other.session.leave();
    await queueTurns(console.context, 'Ines', {
      ...{ siteId, deviceIds: [other.id], reaches: ['internet'], times: 1, profile: 'standard', together: false },
    });
    await pass(10 * MINUTE_MS, 5 * MINUTE_MS);
    expect(await times()).toMatchObject([{ state: 'waits' }]);
    const [turn] = await console.context.store.turns.open();
    await withdrawTurn(console.context, turn!.id);
    await pass(MINUTE_MS);
    expect(await times()).toMatchObject([{ state: 'asked' }]);
    await measure();
    await keep();
    await pass(45 * MINUTE_MS);
    const hunt = await openHunt(console.context, 'Ines', { siteId, deviceId: null });
    await pass(12 * MINUTE_MS);
    await noteInHunt(console.context, 'Ines', hunt.ok ? hunt.value.id : '', 'looked at the switch');
    await pass(10 * MINUTE_MS);
    expect((await times()).at(-1)).toMatchObject({ at: '10:00', state: 'missed', why: 'hunt' });
  });

  it('stops at the data volume of the line, counted by the month of the office', async () => {
    const [line] = await console.context.store.sites.linesOf(siteId);
    await made('every 20 minutes');
    await pass(20 * MINUTE_MS);
    await measure();
    await keep();
    const page = await schedulesPageOf(console.context, siteId);
    const [{ movedBytes }] = page.budgets as [(typeof page.budgets)[number]];
    expect(movedBytes).toBeGreaterThan(1e8);
    await setBudget(console.context, line!.id, (1.5 * movedBytes) / 1e9);
    await pass(20 * MINUTE_MS);
    expect((await times()).at(-1)).toMatchObject({ state: 'missed', why: 'budget' });
    // In December there is as much again.
    console.advanceMs(7 * 24 * HOUR_MS);
    await keep();
    await pass(20 * MINUTE_MS);
    expect((await times()).at(-1)!.why).not.toBe('budget');
    expect(await setBudget(console.context, 'none', 5)).toMatchObject({ fault: { code: 'line-unknown' } });
  });

  it('says beforehand what it will move, by what such runs moved before', async () => {
    await made('every 20 minutes from 7 to 19, Monday to Friday');
    const before = (await schedulesPageOf(console.context, siteId)).schedules[0]!;
    expect(before.runsAWeek).toBe(185);
    // A plan of 500/100: 75 MB a second for the seconds of a quick run, 804 times a month.
    expect(before.bytesAMonth).toBeGreaterThan(100e9);
    await pass(20 * MINUTE_MS);
    const runId = await measure();
    const moved = (await console.context.store.runs.byId(runId))!.movedBytes!;
    const after = (await schedulesPageOf(console.context, siteId)).schedules[0]!;
    expect(after.bytesAMonth! / (moved * 185 * (365.25 / 12 / 7))).toBeCloseTo(1, 6);
  });

  it('rests while it is paused, makes up for nothing, and goes when it is removed with what it had in the queue', async () => {
    const id = await made('every 10 minutes');
    await pass(10 * MINUTE_MS);
    expect(await times()).toMatchObject([{ state: 'asked' }]);
    await pauseSchedule(console.context, id, true);
    expect(await console.context.store.turns.open()).toEqual([]);
    await pass(HOUR_MS, 5 * MINUTE_MS);
    await pauseSchedule(console.context, id, false);
    await pass(10 * MINUTE_MS);
    expect((await times()).map(({ state }) => state)).toEqual(['missed', 'asked']);
    await removeSchedule(console.context, id);
    expect(await console.context.store.turns.open()).toEqual([]);
    expect(await times()).toEqual([]);
    expect(await removeSchedule(console.context, id)).toMatchObject({ fault: { code: 'schedule-unknown' } });
    expect(await pauseSchedule(console.context, id, true)).toMatchObject({ fault: { code: 'schedule-unknown' } });
  });

  it.each([
    ['a sentence that says nothing', { sentence: 'now and then' }, 'schedule-unreadable'],
    ['a device of nobody', { who: { kind: 'device', deviceId: 'none' } }, 'device-unknown'],
    ['a spot of nobody', { who: { kind: 'spot', spotId: 'none' } }, 'spot-unknown'],
    ['an office that is none', { siteId: 'none' }, 'site-missing'],
  ])('is refused for %s', async (_, change, fault) => {
    const order = { siteId, sentence: 'every hour', who: { kind: 'office' }, spreadMinutes: 0, ...change };
    expect(await makeSchedule(console.context, 'Ines', order as never)).toMatchObject({ fault: { code: fault } });
  });
});

describe('the calendar of an office', () => {
  const clock = zoneClock('Europe/Berlin');
  it('has no half past two on the night in March, and the first of two in October', () => {
    expect(clock.instantOf({ year: 2026, month: 3, day: 29 }, 150)).toBeNull();
    expect(clock.instantOf({ year: 2026, month: 10, day: 25 }, 150)).toBe(Date.UTC(2026, 9, 25, 0, 30));
  });
  it('begins its days at its own midnight', () => {
    expect(clock.dayAt(Date.UTC(2026, 11, 31, 23, 30))).toEqual({ year: 2027, month: 1, day: 1 });
  });
});
