import type { LineForm } from '@/wire';
import { renewEndedCodes } from '../access';
import {
  LINE_FORM,
  measured,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { saveLine } from './lines';
import { judgeSomeAnew } from '../runs/judge-anew';
import { correctPlan, removePlan } from './plans';
import { saveOffice } from './offices';
import { savePeer } from './peers';
import { setUpOf } from '../views/set-up';

const DAY_MS = 24 * 3600_000;

describe('the plan of a line', () => {
  let console: TestConsole;
  let siteId: string;
  let devices = 0;
  beforeEach(async () => {
    console = await openTestConsole();
    const site = await saveOffice(console.context, null, 'Larkspur Bindery');
    if (!site.ok) throw new Error(site.fault.code);
    siteId = site.value.id;
    const peer = { name: 'Hilltop exchange', reach: 'internet', address: ':4871', farSiteId: null } as const;
    await savePeer(console.context, siteId, null, peer);
    await saveLine(console.context, siteId, null, LINE_FORM);
  });
  afterEach(() => console.close());

  const line = async () => (await setUpOf(console.context)).lines[0]!;
  const shown = async () => (await line()).shown;
  const save = async (form: LineForm) => saveLine(console.context, siteId, (await line()).id, form);
  const planOfARun = async () => {
    await renewEndedCodes(console.context);
    const code = (await console.context.store.sites.byId(siteId))!.joinCode;
    const run = await startRun(
      console.context,
      { ...STRANGER, code },
      orderFor(code, { deviceName: `Device ${(devices += 1)}` }),
      'http://192.0.2.20:4870',
    );
    if (!run.ok) throw new Error(run.fault.code);
    await console.context.store.runs.end(
      run.value.runId,
      { status: 'unfinished', reason: 'cancelled', endedAtMs: 1 },
      null,
    );
    return (await console.context.store.runs.byId(run.value.runId))!.plan;
  };

  it('is corrected when no other day is given', async () => {
    await save({ ...LINE_FORM, downMbps: 480, shown: await shown() });
    const { plan, plans } = await line();
    expect(plan!.downBps).toBe(480e6);
    expect(plans).toHaveLength(1);
  });

  it('of another day is another plan: runs are held against the one of their day, old and new', async () => {
    const before = await planOfARun();
    const validFrom = console.context.wallMs() + 10 * DAY_MS;
    await save({ ...LINE_FORM, downMbps: 1000, validFrom, shown: await shown() });
    expect((await line()).plans.map(({ downBps }) => downBps)).toEqual([1000e6, 500e6]);
    expect((await planOfARun())!.downBps).toBe(500e6);
    console.advanceMs(10 * DAY_MS - 3600_000);
    expect((await planOfARun())!.downBps).toBe(500e6);
    console.advanceMs(3600_000);
    expect((await line()).plan!.downBps).toBe(1000e6);
    expect(before!.downBps).toBe(500e6);
  });

  it('is not overwritten by somebody who had not seen the last change', async () => {
    const both = await shown();
    const first = await save({ ...LINE_FORM, downMbps: 480, shown: both });
    expect(first.ok).toBe(true);
    const second = await save({ ...LINE_FORM, downMbps: 520, shown: both });
    expect(second).toMatchObject({ fault: { code: 'changed-meanwhile' } });
    expect((await line()).plan!.downBps).toBe(480e6);
  });

  describe('that was mistyped', () => {
    const judged = async (runId: string) => (await console.context.store.runs.byId(runId))!;
    /** A run of 486/97 today, held against 500/100. */
    const measuredRun = async () => {
      const code = (await console.context.store.sites.byId(siteId))!.joinCode;
      return (await measured(console, orderFor(code, { deviceName: `Device ${(devices += 1)}` }))).runId;
    };
    const form = { ...LINE_FORM, validFrom: null };

    it('is corrected, and the runs of its days are judged anew and say when', async () => {
      const runId = await measuredRun();
      expect((await judged(runId)).verdict).toBe('full');
      const { id: lineId, plans } = await line();
      console.advanceMs(3600_000);
      const corrected = await correctPlan(console.context, siteId, lineId, plans[0]!.id, { ...form, downMbps: 1000 });
      expect(corrected.ok).toBe(true);
      expect(await judgeSomeAnew(console.context)).toBe(1);
      const run = await judged(runId);
      expect(run).toMatchObject({ verdict: 'thin', planCorrectedAtMs: console.context.wallMs() });
      expect(run.plan!.downBps).toBe(1000e6);
      expect((await line()).plans[0]!.correctedAtMs).toBe(console.context.wallMs());
      // Nothing is left to do, and nothing is done twice.
      expect(await judgeSomeAnew(console.context)).toBe(0);
      expect((await line()).rejudgeFromMs).toBeNull();
    });

    it('is corrected by the line’s own form just the same', async () => {
      const runId = await measuredRun();
      await save({ ...LINE_FORM, downMbps: 1000, shown: await shown() });
      await judgeSomeAnew(console.context);
      expect((await judged(runId)).verdict).toBe('thin');
    });

    it('is removed, and the runs of its days are held against the one before it', async () => {
      const runId = await measuredRun();
      const midnight = console.context.wallMs() - 3600_000;
      await save({ ...LINE_FORM, downMbps: 1000, validFrom: midnight, shown: await shown() });
      await judgeSomeAnew(console.context);
      expect((await judged(runId)).plan!.downBps).toBe(500e6);
      const { id: lineId, plans } = await line();
      await removePlan(console.context, siteId, lineId, plans.find(({ downBps }) => downBps === 500e6)!.id);
      await judgeSomeAnew(console.context);
      expect((await judged(runId)).plan!.downBps).toBe(1000e6);
    });

    it('goes on being judged after a restart in the middle', async () => {
      const runId = await measuredRun();
      const { id: lineId, plans } = await line();
      await correctPlan(console.context, siteId, lineId, plans[0]!.id, { ...form, downMbps: 1000 });
      await console.reopen();
      await judgeSomeAnew(console.context);
      expect((await judged(runId)).verdict).toBe('thin');
    });

    it('is refused where there is no such plan, or its day is another one’s', async () => {
      const { id: lineId, plans } = await line();
      expect(await correctPlan(console.context, siteId, lineId, 'none', form)).toMatchObject({
        fault: { code: 'plan-unknown' },
      });
      const later = plans[0]!.validFromMs + 5 * DAY_MS;
      await save({ ...LINE_FORM, downMbps: 1000, validFrom: later, shown: await shown() });
      expect(
        await correctPlan(console.context, siteId, lineId, plans[0]!.id, { ...form, validFrom: later }),
      ).toMatchObject({ fault: { code: 'plan-day-taken' } });
      expect(await removePlan(console.context, siteId, lineId, 'none')).toMatchObject({
        fault: { code: 'plan-unknown' },
      });
    });
  });
});
