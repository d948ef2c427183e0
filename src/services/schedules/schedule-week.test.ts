import { dueTimes, seededRandom } from '@/core';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { lastTurn, standingDevice, takeTurn, type StandingDevice } from '../turns/standing-for-tests';
import { keepSchedules, makeSchedule } from '.';
import { zoneClock } from './zone-clock';

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;
/** The console looks every few seconds; a schedule knows minutes, so that these make no difference. */
const STEP_MS = 4 * MINUTE_MS;
/** While no time is near and none is open, nothing can come of a look. */
const IDLE_STEP_MS = 20 * MINUTE_MS;
const NEAR_MS = 24 * MINUTE_MS;
/** A time that waits for its turn is open for so long. */
const OPEN_MS = 30 * MINUTE_MS;
/** What becomes of a time is settled within so long. */
const SETTLED_MS = 20 * MINUTE_MS;
/** By hand: three weeks with a time every 40 minutes took a minute and held as well. */
const SEEDS = [1];

describe('a schedule over a simulated week', () => {
  let console: TestConsole;
  afterEach(() => console.close());

  it.each(SEEDS)(
    'has each time once, through restarts, outages and the hour that there is twice, and loses nothing (seed %i)',
    async (seed) => {
      const random = seededRandom(seed);
      console = await openTestConsole();
      const { siteId } = await furnish(console);
      const { sites } = console.context.store;
      await sites.saveSite({ ...(await sites.byId(siteId))!, timeZone: 'Europe/Berlin' });
      // The week around the night of 31 October 2027, in which the clocks go back.
      console.advanceMs(Date.UTC(2027, 9, 28, 5, 2) - console.context.wallMs());
      let box: StandingDevice | null = await standingDevice(console, siteId, { name: 'Attic box' });
      const { id: deviceId } = box;
      const startMs = console.context.wallMs();
      const sentence = 'every 2 hours from 0 to 24, internet, quick';
      const made = await makeSchedule(console.context, 'Ines', {
        ...{ siteId, sentence, who: { kind: 'device', deviceId }, spreadMinutes: 3 },
      });
      if (!made.ok) throw new Error(made.fault.code);

      const clock = zoneClock('Europe/Berlin');
      const coming = dueTimes(made.value.schedule, clock, startMs, startMs + 8 * DAY_MS);
      const isNear = (nowMs: number) => coming.some((dueMs) => dueMs > nowMs - OPEN_MS && dueMs < nowMs + NEAR_MS);
      let taken = '';
      while (console.context.wallMs() < startMs + 7 * DAY_MS) {
        let stepMs = isNear(console.context.wallMs()) ? STEP_MS : IDLE_STEP_MS;
        const chance = random();
        if (chance < 0.004) {
          // The console is off for a while; whoever stood by comes back to the new one.
          stepMs = Math.ceil(random() * 180) * MINUTE_MS;
          await console.reopen();
          box = null;
        } else if (chance < 0.012 && box !== null) {
          await box.session.leave();
          box = null;
        } else if (chance > 0.93 && box === null) box = await standingDevice(console, siteId, { id: deviceId });
        console.advanceMs(stepMs);
        await keepSchedules(console.context);
        const asked = box?.told.some(({ kind }) => kind === 'asked') ? lastTurn(box) : '';
        if (box === null || asked === '' || asked === taken) continue;
        taken = asked;
        // Now and then nothing comes of it, or the machine is gone before it has begun.
        if (random() < 0.05) continue;
        await takeTurn(console, box, { profile: 'quick', samples: random() > 0.05 });
        await keepSchedules(console.context);
      }
      const endMs = console.context.wallMs();

      const all = await console.context.store.schedules.timesOf(siteId, startMs, endMs - SETTLED_MS);
      const due = dueTimes(made.value.schedule, clock, startMs, endMs - SETTLED_MS);
      expect(all.map(({ dueAtMs }) => dueAtMs).sort((a, b) => a - b)).toEqual(due);
      // Twelve times a day, of which the night that is longer repeats none.
      expect(due.length).toBeGreaterThan(7 * 12 - 3);
      expect(due.length).toBeLessThanOrEqual(7 * 12 + 1);
      const [kept, missed] = [
        all.filter(({ state }) => state === 'made'),
        all.filter(({ state }) => state === 'missed'),
      ];
      expect(kept.length + missed.length).toBe(all.length);
      expect(missed.every(({ why }) => why !== null)).toBe(true);
      expect(kept.length).toBeGreaterThan(all.length / 2);
      const runs = await Promise.all(kept.map(({ runId }) => console.context.store.runs.byId(runId!)));
      expect(runs.map((run) => run?.status)).toEqual(kept.map(() => 'finished'));
      expect(new Set(kept.map(({ runId }) => runId)).size).toBe(kept.length);
    },
  );
});
