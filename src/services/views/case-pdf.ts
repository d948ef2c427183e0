import {
  caseSentence,
  delayFigure,
  measureWords,
  missingWords,
  rateFigure,
  refusedWords,
  ruleWords,
  standWords,
  type CaseRun,
} from '@/core';
import { caseRecord, methodVersions } from './case-record';
import type { CasePage } from './case-page';

const RUN_SHARES = [0.2, 0.24, 0.11, 0.11, 0.1, 0.12, 0.12];
const RUN_HEAD = ['when', 'device', 'down Mb/s', 'up Mb/s', 'idle ms', 'added down', 'added up'];

/**
 * The record of a case as PDF, with all its data attached: page one for whoever reads nothing else. `fonts`: their folder.
 * Rejects as soon as `signal` is aborted.
 */
export async function casePdf(page: CasePage, fonts: string, signal?: AbortSignal): Promise<Buffer> {
  // What draws is large: read by whoever prints.
  const { PrintSheet, QUIET } = await import('./print-sheet');
  const { stored, site, line, evidence, answer, rows, nowMs, otherPlan, planCorrectedAtMs } = page;
  const zone = site.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const format = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: zone });
  const moment = (atMs: number) => format.format(atMs);
  const record = caseRecord(page);
  const versions = methodVersions(evidence, rows);
  const method = versions.length === 0 ? '' : `, method version ${versions.join(' and ')}`;
  const head = [
    stored.title,
    site.name,
    line.name,
    `${moment(nowMs)} (${zone})`,
    ...(site.demo ? ['demo data'] : []),
  ].join(' · ');
  const sheet = new PrintSheet(fonts, head, stored.title, signal);
  sheet.text(stored.title, { size: 20, weight: '700', gap: 8 });
  sheet.text(caseSentence(answer, evidence), { size: 13, gap: 8 });
  const missing = missingWords(evidence, stored.rule);
  if (missing !== '') sheet.text(missing, { gap: 6 });
  for (const measure of answer.measures)
    sheet.text(`This ${standWords(measure, answer)}: ${measureWords(measure)}`, {
      weight: measure.fallsShort ? '700' : '400',
    });
  sheet.heading('What this is about');
  sheet.text(
    `Office: ${site.name}. Line: ${line.name}${line.provider === '' ? '' : `, provided by ${line.provider}`}.`,
  );
  sheet.text(
    `Runs from ${moment(stored.openedAtMs)} to ${moment(stored.closedAtMs ?? nowMs)}, hours of ${zone}. Case opened by ${stored.byName}.`,
  );
  if (otherPlan !== null)
    sheet.text(
      `The plan now written down for this line, ${otherPlan.name}, names other figures: ${rateFigure(otherPlan.downBps)} down and ${rateFigure(otherPlan.upBps)} up.`,
    );
  if (planCorrectedAtMs !== null)
    sheet.text(`The plan of this line was corrected on ${moment(planCorrectedAtMs)}, after the case was opened.`);
  if (stored.notes !== '') sheet.text(stored.notes);
  sheet.heading('The rule');
  for (const sentence of ruleWords(stored.rule)) sheet.text(sentence);
  sheet.text('Whether it is fulfilled is computed from the runs below and not typed by anybody.', { color: QUIET });
  sheet.heading('How it was measured');
  sheet.text(
    `Each run fills the line in one direction at a time through several TCP connections; the rate is what the receiving end counted after the start${method}. Against the kernel’s own counters it is true within 1 %. The far end signs what it moved; a run whose receipt is missing does not count. The signed receipts are in the attached data, with how to check them.`,
  );
  for (const { day, runs, enough } of evidence.days) {
    sheet.heading(
      `${day}: ${runs.length} ${runs.length === 1 ? 'run' : 'runs'}${enough ? '' : ', too few for a day of the rule'}`,
    );
    await sheet.table(
      RUN_HEAD,
      RUN_SHARES,
      runs.map((run) => runCells(run, page, moment)),
    );
  }
  if (evidence.refused.length > 0) {
    sheet.heading('Runs that do not count, and why');
    sheet.row(['when', 'device', 'down Mb/s', 'up Mb/s', 'because'], [0.2, 0.24, 0.11, 0.11, 0.34], { weight: '700' });
    for (const { run, because } of evidence.refused) {
      const row = rows.get(run.id)!;
      const cells = [
        moment(run.startedAtMs),
        row.deviceName,
        rateFigure(run.downBps),
        rateFigure(run.upBps),
        refusedWords(because),
      ];
      sheet.row(cells, [0.2, 0.24, 0.11, 0.11, 0.34], { color: QUIET });
    }
  }
  sheet.heading('To check it');
  sheet.text(
    'All of this as data is attached to this file as record.json, each run with its figures, flags and method. The SHA-256 of the attachment:',
  );
  sheet.text(record.sha256, { size: 9 });
  sheet.attach(record.bytes, 'record.json', 'application/json', 'The data of the case');
  if (sheet.lacksLetters)
    sheet.text('A letter that the fonts of this paper lack is a question mark here; the data have it.');
  return sheet.finish();
}

function runCells(run: CaseRun, { rows }: CasePage, moment: (atMs: number) => string): string[] {
  const row = rows.get(run.id)!;
  return [
    ...[moment(run.startedAtMs), row.deviceName, rateFigure(run.downBps), rateFigure(run.upBps)],
    ...[delayFigure(row.idleMs), delayFigure(row.addedDownMs), delayFigure(row.addedUpMs)],
  ];
}
