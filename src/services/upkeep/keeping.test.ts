import {
  furnish,
  measured,
  openTestConsole,
  orderFor,
  TECHNICIAN,
  type TestConsole,
} from '../console/console-for-tests';
import { runPageOf, samplesDocumentOf } from '../views';
import { renewEndedCodes } from '../access';
import { keepingShown, keepSamples, thinSamples } from './keeping';

const DAY_MS = 24 * 3600_000;

describe('what is kept', () => {
  let console: TestConsole;
  let siteId: string;
  let [old, young] = ['', ''];

  beforeAll(async () => {
    console = await openTestConsole();
    const office = await furnish(console);
    siteId = office.siteId;
    old = (await measured(console, orderFor(office.code))).runId;
    console.advanceMs(200 * DAY_MS);
    await renewEndedCodes(console.context);
    const { joinCode } = (await console.context.store.sites.byId(siteId))!;
    young = (await measured(console, orderFor(joinCode, { deviceName: 'Second desk' }))).runId;
  });
  afterAll(() => console.close());

  it('is the samples for 400 days unless somebody says otherwise, and what they take is told', async () => {
    expect(await thinSamples(console.context)).toBe(0);
    const shown = await keepingShown(console.context);
    expect(shown).toMatchObject({ sampleDays: 400, runs: 2, sampledRuns: 2 });
    expect(shown.sampleBytes).toBeGreaterThan(1000);
    expect(shown.databaseBytes).toBeGreaterThan(shown.sampleBytes);
    expect(shown.inAYearBytes).toBeGreaterThan(0);
  });

  it('is thinned when it is older: the samples go, the figures stay, and it is said', async () => {
    await keepSamples(console.context, { days: 100 });
    expect(await thinSamples(console.context)).toBe(1);
    expect(await thinSamples(console.context)).toBe(0);
    const page = await runPageOf(console.context, old);
    expect(page).toMatchObject({ ok: true, value: { strip: null, run: { thinnedAtMs: console.context.wallMs() } } });
    if (page.ok) expect(page.value.result!.report.down.rate!.steadyBps).toBeGreaterThan(400e6);
    expect(await samplesDocumentOf(console.context, TECHNICIAN, old)).toMatchObject({
      fault: { code: 'samples-thinned' },
    });
    expect(await samplesDocumentOf(console.context, TECHNICIAN, young)).toMatchObject({ ok: true });
  });

  it('stays for ever where that is wanted', async () => {
    await keepSamples(console.context, { days: null });
    console.advanceMs(4000 * DAY_MS);
    expect(await thinSamples(console.context)).toBe(0);
    expect(await keepingShown(console.context)).toMatchObject({ sampleDays: null, sampledRuns: 1 });
  });
});
