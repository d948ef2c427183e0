import { renewEndedCodes } from '../access';
import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { noteSwap } from '../hunts';
import { leaveOutRuns } from '../runs';
import { timeSeriesOf, type TimeSeries } from './time-series';
import { readSubject, timeSubjectsOf } from './time-subjects';

const DAY_MS = 24 * 3600_000;
const SLOW = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 310e6 } };

describe('a line over time', () => {
  let console: TestConsole;
  let siteId: string;
  let lineId: string;
  let runs: string[];

  beforeAll(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
    lineId = (await console.context.store.sites.linesOf(siteId))[0]!.id;
    runs = [];
    const run = async (order = {}, line = GOOD_LINE) => {
      console.advanceMs(60_000);
      await renewEndedCodes(console.context);
      const { joinCode } = (await console.context.store.sites.byId(siteId))!;
      const { runId } = await measured(console, orderFor(joinCode, order), line);
      runs.push(runId);
    };
    await run();
    console.advanceMs(DAY_MS);
    await run({ deviceName: 'Second desk' }, SLOW);
    // Over the air a shortfall says nothing of the line.
    await run({ deviceName: 'Tablet', link: { medium: 'wifi', band: '5', linkRateBps: 866e6 } }, SLOW);
    await run({ deviceName: 'Inside', reach: 'local' });
    console.advanceMs(DAY_MS);
    await run({ deviceName: 'Third desk' });
  });
  afterAll(() => console.close());

  const read = async (key: string): Promise<TimeSeries> => {
    const found = await timeSeriesOf(console.context, siteId, key);
    if (!found.ok) throw new Error(found.fault.code);
    return found.value;
  };

  it('has an occasion for each set, and no rate of a run that something nearer may have limited', async () => {
    const { occasions, unfit } = await read(`line ${lineId}`);
    expect(occasions.startedAtMs).toHaveLength(4);
    expect([...occasions.startedAtMs]).toEqual([...occasions.startedAtMs].sort((a, b) => a - b));
    expect(occasions.down.map((bps) => bps && Math.round(bps / 1e7) * 10)).toEqual([490, 310, null, 490]);
    expect(occasions.addedUp.every((ms) => ms !== null && ms > 100)).toBe(true);
    expect(unfit).toBe(1);
  });

  it('counts what met the plan of those that could tell, and why the others could not', async () => {
    const { plan } = await read(`line ${lineId}`);
    expect(plan).toMatchObject({ met: 2, notMet: 1, cannotTell: 1 });
    expect(plan!.reasons).toContainEqual({ code: 'over-wifi', runs: 1 });
    expect(plan!.days.map(({ day, met, notMet }) => [day, met, notMet])).toEqual([
      ['2026-11-24', 1, 0],
      ['2026-11-25', 0, 1],
      ['2026-11-26', 1, 0],
    ]);
  });

  it('holds it against the plan of its day, and shows the swaps that touch it', async () => {
    const noted = await noteSwap(console.context, 'Ines', {
      ...{ siteId, segmentId: `line:${lineId}`, what: 'line-changed', deviceId: null, note: 'grey box', huntId: null },
      atMs: console.context.wallMs() - DAY_MS,
    });
    expect(noted.ok).toBe(true);
    const { plans, flags } = await read(`line ${lineId}`);
    expect(plans).toHaveLength(1);
    expect(plans[0]).toMatchObject({ downBps: expect.closeTo(500e6, -7) as number });
    expect(flags.map(({ words }) => words)).toEqual(['the provider changed the line: grey box']);
  });

  it('is of a device by its link and reach, and lists them with the most measured first', async () => {
    const subjects = await timeSubjectsOf(console.context, siteId);
    expect(subjects[0]).toMatchObject({ kind: 'line', key: `line ${lineId}` });
    const tablet = subjects.find(({ name }) => name.startsWith('Tablet'))!;
    const { occasions, plan, yardstick } = await read(tablet.key);
    expect(occasions.down).toHaveLength(1);
    expect(occasions.down[0]! / 310e6).toBeCloseTo(1, 1);
    expect(plan).toBeNull();
    expect(yardstick!.downBps).toBeGreaterThan(0);
  });

  it('leaves out what a technician left out', async () => {
    await leaveOutRuns(console.context, { siteId, runIds: [runs[0]!], reason: 'a test' });
    expect((await read(`line ${lineId}`)).occasions.runId).not.toContain(runs[0]);
  });

  it('is refused for what is no line and no device of the office', async () => {
    for (const key of ['line nothing', 'nobody wired local', 'line', '', 'a b c'])
      expect(await timeSeriesOf(console.context, siteId, key)).toMatchObject({
        ok: false,
        fault: { code: 'subject-unknown' },
      });
    expect(await timeSeriesOf(console.context, 'no office', `line ${lineId}`)).toMatchObject({
      ...{ ok: false, fault: { code: 'site-missing' } },
    });
    expect(readSubject('a wired nowhere')).toBeNull();
  });
});
