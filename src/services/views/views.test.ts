import { openCase } from '../cases';
import { caseFormFor } from '../cases/case-form-for-tests';
import {
  furnish,
  measured,
  openTestConsole,
  orderFor,
  TECHNICIAN,
  visitorOf,
  type TestConsole,
} from '../console/console-for-tests';
import { openHunt } from '../hunts';
import { makeComparison } from '../runs';
import { shareRun } from '../runs/share-run';
import {
  auditPageOf,
  boardOf,
  joinPageOf,
  ledgerOf,
  ledgerPageOf,
  peopleOf,
  runPageOf,
  samplesDocumentOf,
  setUpOf,
  sharedRunPageOf,
  sitesOverview,
  weekOfRuns,
} from '.';
import * as views from '.';

/** A file is read while it is handed over. */
async function exportAll(context: TestConsole['context']): Promise<string> {
  const file = await views.exportedRuns(context, {}, 'ndjson');
  let text = '';
  if (file.ok) for await (const part of file.value.parts) text += part;
  return text;
}

describe('a view', () => {
  const statements: string[] = [];
  let console: TestConsole;
  beforeAll(async () => {
    console = await openTestConsole((sql) => statements.push(sql));
  });
  afterAll(() => console.close());

  it('only reads: no statement of any of them writes', async () => {
    const { siteId, code } = await furnish(console);
    const { runId } = await measured(console, orderFor(code));
    const shared = await shareRun(console.context, runId);
    const proof = shared.ok ? shared.value.split('/').at(-1)! : '';
    // What was measured is a month old by now, with codes, turns and copies past their day: no view tidies up.
    console.advanceMs(31 * 24 * 3600_000);
    const hunt = await openHunt(console.context, 'Ines', { siteId, deviceId: null });
    expect(hunt.ok).toBe(true);
    const trays = ['link=wired', 'reach=local'].map((query) => ({ name: '', query, runIds: null }));
    const side = await makeComparison(console.context, 'Ines', { siteId, name: '', trays });
    expect(side.ok).toBe(true);
    const opened = await openCase(console.context, 'Ines', {
      siteId,
      form: await caseFormFor(console.context, siteId),
    });
    expect(opened.ok).toBe(true);
    const page = opened.ok ? await views.casePageOf(console.context, opened.value.id) : null;
    const span = {
      ...({ siteId, sections: null, kind: 'span', title: 'All of it' } as const),
      ...{ fromMs: 0, untilMs: console.context.wallMs() },
    };
    const report = await views.reportOf(console.context, span);
    const schedule = {
      ...{ id: 'nightly', siteId, who: { kind: 'office' } as const, spreadMinutes: 2, paused: false },
      schedule: { days: [0], times: { kind: 'at', minutes: [60] }, reaches: ['internet'], profile: 'quick' } as const,
      ...{ byName: 'Ines', madeAtMs: 0, doneUntilMs: 0 },
    };
    await console.context.store.schedules.save(schedule);
    statements.length = 0;
    const { context } = console;
    const asked: Record<keyof typeof views extends infer Name ? Extract<Name, string> : never, unknown> = {
      BOARD_AGES: null,
      AIR_DAYS: null,
      airPageOf: await views.airPageOf(context, siteId),
      LEDGER_FIRST_ROWS: null,
      officesAtAGlance: await views.officesAtAGlance(context),
      agentsPageOf: await views.agentsPageOf(context, siteId),
      schedulesPageOf: await views.schedulesPageOf(context, siteId),
      bytesAMonth: await views.bytesAMonth(context, schedule.schedule, await context.store.sites.devicesOf(siteId)),
      auditPageOf: await auditPageOf(context, { beforeId: null, who: null, whats: null }),
      boardOf: await boardOf(context),
      huntPageOf: hunt.ok ? await views.huntPageOf(context, hunt.value.id) : null,
      huntsOf: await views.huntsOf(context, siteId),
      joinPageOf: await joinPageOf(context, await visitorOf(console, orderFor(code))),
      labelsOf: await views.labelsOf(context, siteId),
      exportedRuns: await exportAll(context),
      comparisonsOf: await views.comparisonsOf(context, siteId),
      sidePageOf: side.ok ? await views.sidePageOf(context, side.value.id) : null,
      sharedSidePageOf: await views.sharedSidePageOf(context, 'none', 'none'),
      ledgerFrameOf: await views.ledgerFrameOf(context, siteId),
      ledgerOf: await ledgerOf(context, { query: 'press verdict=full swap=none' }),
      matchingRuns: await views.matchingRuns(context, {}),
      ledgerPageOf: await ledgerPageOf(context, {}),
      ledgerRunOf: null,
      peopleOf: await peopleOf(context),
      runPageOf: await runPageOf(context, runId),
      samplesDocumentOf: await samplesDocumentOf(context, TECHNICIAN, runId),
      casesOf: await views.casesOf(context, siteId),
      casePageOf: opened.ok ? await views.casePageOf(context, opened.value.id) : null,
      casePdf: page?.ok ? await views.casePdf(page.value, context.printFonts) : null,
      caseRecord: page?.ok ? views.caseRecord(page.value) : null,
      setUpOf: await setUpOf(context),
      timeSubjectsOf: await views.timeSubjectsOf(context, siteId),
      timeSeriesOf: await views.timeSeriesOf(
        context,
        siteId,
        `line ${(await context.store.sites.linesOf(siteId))[0]!.id}`,
      ),
      COPY_DAYS: null,
      copyPageOf: await views.copyPageOf(context, siteId, undefined),
      REPORT_SECTIONS: null,
      reportOf: await views.reportOf(context, span),
      reportPdf: report.ok ? await views.reportPdf(report.value, context.printFonts) : null,
      sharedRunPageOf: await sharedRunPageOf(context, runId, proof),
      standsOut: await views.standsOut(context, siteId, await context.store.sites.devicesOf(siteId)),
      swapsPageOf: await views.swapsPageOf(context, siteId),
      sitesOverview: await sitesOverview(context),
      weekOfRuns: await weekOfRuns(context, siteId, 'internet', null),
    };
    expect(Object.keys(asked).sort()).toEqual(Object.keys(views).sort());
    expect(statements.length).toBeGreaterThan(20);
    expect(statements.filter((sql) => !/^(Execut(?:ing|ed) \([^)]*\): )?(SELECT|WITH|PRAGMA)\b/i.test(sql))).toEqual(
      [],
    );
  });
});
