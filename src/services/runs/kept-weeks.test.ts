import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { readWeeks, weekFigures, weekOfPlan } from './kept-weeks';

const DAY_MS = 24 * 3600_000;

describe('what is kept of a week', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  let reads: jest.SpyInstance;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
    reads = jest.spyOn(console.context.store.runs, 'figuresSince');
  });
  afterEach(() => console.close());

  const week = () => weekFigures(console.context, siteId, 'internet');
  const lineId = async () => (await console.context.store.sites.linesOf(siteId))[0]!.id;
  const slow = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 120e6 } };

  it('is read once, and anew as soon as a run has come', async () => {
    await measured(console, orderFor(code));
    const first = await week();
    expect(await week()).toBe(first);
    expect(reads).toHaveBeenCalledTimes(1);
    await measured(console, orderFor(code, { deviceName: 'Other' }), slow);
    expect((await week()).count).toBe(2);
  });

  it('forgets what is older than seven days without any run that comes', async () => {
    await measured(console, orderFor(code));
    expect((await week()).count).toBe(1);
    console.advanceMs(7 * DAY_MS + 11 * 60_000);
    expect(await week()).toMatchObject({ count: 0, downBps: null, newest: null });
  });

  it('is read anew when the clock was put back', async () => {
    await week();
    console.advanceMs(-DAY_MS);
    await week();
    expect(reads).toHaveBeenCalledTimes(2);
  });

  it('is asked for again after a reading that failed', async () => {
    reads.mockRejectedValueOnce(new Error('disk'));
    await expect(week()).rejects.toThrow('disk');
    expect((await week()).count).toBe(0);
  });

  it('says of how many occasions the plan was met', async () => {
    await measured(console, orderFor(code));
    console.advanceMs(31 * 60_000);
    await measured(console, orderFor(code, { deviceName: 'Slow one' }), slow);
    expect(await weekOfPlan(console.context, siteId, await lineId())).toEqual({ met: 1, told: 2 });
  });

  it('is at hand for whoever opens the list, where the upkeep has read it', async () => {
    await measured(console, orderFor(code));
    await readWeeks(console.context);
    reads.mockClear();
    expect((await week()).count).toBe(1);
    expect(reads).not.toHaveBeenCalled();
  });
});
