import type { LineForm } from '@/wire';
import { renewEndedCodes } from './access';
import { LINE_FORM, openTestConsole, orderFor, startRun, STRANGER, type TestConsole } from './console-for-tests';
import { saveLine } from './lines';
import { saveOffice } from './offices';
import { savePeer } from './peers';
import { setUpOf } from './set-up';

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
});
