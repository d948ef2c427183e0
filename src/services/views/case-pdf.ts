import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import {
  caseSentence,
  delayFigure,
  measureWords,
  METHOD_VERSION,
  missingWords,
  rateFigure,
  refusedWords,
  ruleWords,
  type CaseRun,
} from '@/core';
import { caseRecord } from './case-record';
import type { CasePage } from './case-page';

const MARGIN = 48;
const INK = '#1b2733';
const QUIET = '#4f5759';
const HAIRLINE = '#d9d0c0';
const FAMILY = 'atkinson-hyperlegible-next';
type Weight = '400' | '700';
/** Part of the letters → the font that has them. */
const PARTS = ['latin', 'latin-ext'] as const;
const LATIN = /[\u0000-\u00ff\u0131\u0152\u0153\u02c6\u02dc\u2000-\u206f\u20ac\u2122\u2212]/;
const LATIN_EXT = /[\u0100-\u024f\u1e00-\u1eff]/;
/** A letter that no font here has: it is in the record that is attached. */
const OTHER = '□';

type Part = (typeof PARTS)[number];

/** Text in runs of one font each. */
function fontRuns(text: string): { readonly part: Part; readonly text: string }[] {
  const runs: { part: Part; text: string }[] = [];
  for (const letter of text) {
    const part: Part = LATIN_EXT.test(letter) && !LATIN.test(letter) ? 'latin-ext' : 'latin';
    const shown = part === 'latin' && !LATIN.test(letter) ? OTHER : letter;
    const last = runs.at(-1);
    if (last?.part === part) last.text += shown;
    else runs.push({ part, text: shown });
  }
  return runs.length === 0 ? [{ part: 'latin', text: '' }] : runs;
}

/** A4 pages with the look of the paper; each carries what it is a page of. */
class Sheet {
  readonly document: PDFKit.PDFDocument;
  constructor(
    fonts: string,
    private readonly head: string,
    title: string,
  ) {
    this.document = new PDFDocument({
      ...{ size: 'A4', margins: { top: MARGIN + 14, bottom: MARGIN + 14, left: MARGIN, right: MARGIN } },
      ...{ bufferPages: true, tagged: true, pdfVersion: '1.7', lang: 'en', displayTitle: true, info: { Title: title } },
    });
    for (const part of PARTS)
      for (const weight of ['400', '700'])
        this.document.registerFont(`${part} ${weight}`, join(fonts, `${FAMILY}-${part}-${weight}-normal.woff`));
  }

  get width(): number {
    return this.document.page.width - 2 * MARGIN;
  }

  get #bottom(): number {
    return this.document.page.height - MARGIN - 14;
  }

  /** Goes on a new page where so much does not fit any more. */
  room(height: number): void {
    if (this.document.y + height > this.#bottom) this.document.addPage();
  }

  text(text: string, { size = 10, weight = '400', color = INK, gap = 4, x = MARGIN, width = this.width } = {}): void {
    const runs = fontRuns(text);
    this.document.fillColor(color).fontSize(size);
    runs.forEach((run, index) => {
      this.document.font(`${run.part} ${weight}`);
      const options = { width, continued: index < runs.length - 1 };
      if (index === 0) this.document.text(run.text, x, this.document.y, options);
      else this.document.text(run.text, options);
    });
    this.document.y += gap;
  }

  /** A heading is never parted from what follows it. */
  heading(text: string): void {
    this.room(70);
    this.document.y += 8;
    this.text(text, { size: 13, weight: '700', gap: 4 });
  }

  /** A row of cells; columns by their shares of the width. */
  row(
    cells: readonly string[],
    shares: readonly number[],
    look: { readonly weight?: Weight; readonly color?: string } = {},
  ): void {
    const HEIGHT = 14;
    this.room(HEIGHT);
    const y = this.document.y;
    let x = MARGIN;
    cells.forEach((cell, index) => {
      const width = shares[index]! * this.width;
      this.document
        .font(`latin ${look.weight ?? '400'}`)
        .fontSize(8.5)
        .fillColor(look.color ?? INK);
      const shown = fontRuns(cell)
        .map((run) => (run.part === 'latin' ? run.text : OTHER.repeat(run.text.length)))
        .join('');
      this.document.text(shown, x, y, { width: width - 4, height: HEIGHT, ellipsis: true, lineBreak: false });
      x += width;
    });
    this.document.y = y + HEIGHT;
    this.document
      .moveTo(MARGIN, this.document.y - 3)
      .lineTo(MARGIN + this.width, this.document.y - 3)
      .lineWidth(0.4)
      .strokeColor(HAIRLINE)
      .stroke();
  }

  /** What each page is a page of, and its number; after all is written. */
  finish(): Promise<Buffer> {
    const { start, count } = this.document.bufferedPageRange();
    for (let page = start; page < start + count; page += 1) {
      this.document.switchToPage(page);
      const { margins } = this.document.page;
      this.document.page.margins = { ...margins, top: 0, bottom: 0 };
      this.document.fontSize(8).fillColor(QUIET).font('latin 400');
      const shown = fontRuns(this.head)
        .map((run) => run.text)
        .join('');
      this.document.text(shown, MARGIN, MARGIN - 18, { width: this.width, lineBreak: false, ellipsis: true });
      this.document.text(`page ${page + 1} of ${count}`, MARGIN, this.document.page.height - MARGIN, {
        width: this.width,
        align: 'right',
        lineBreak: false,
      });
      this.document.page.margins = margins;
    }
    const parts: Buffer[] = [];
    return new Promise((resolve, reject) => {
      this.document.on('data', (part: Buffer) => parts.push(part));
      this.document.on('end', () => resolve(Buffer.concat(parts)));
      this.document.on('error', reject);
      this.document.end();
    });
  }
}

const RUN_SHARES = [0.2, 0.24, 0.11, 0.11, 0.1, 0.12, 0.12];
const RUN_HEAD = ['when', 'device', 'down Mb/s', 'up Mb/s', 'idle ms', 'added down', 'added up'];

/** The record of a case as PDF, with all its data attached: page one for whoever reads nothing else. `fonts`: their folder. */
export async function casePdf(page: CasePage, fonts: string): Promise<Buffer> {
  const { stored, site, line, evidence, answer, rows, nowMs, otherPlan, planCorrectedAtMs } = page;
  const zone = site.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const format = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: zone });
  const moment = (atMs: number) => format.format(atMs);
  const record = caseRecord(page);
  const head = [
    stored.title,
    site.name,
    line.name,
    `${moment(nowMs)} (${zone})`,
    ...(site.demo ? ['demo data'] : []),
  ].join(' · ');
  const sheet = new Sheet(fonts, head, stored.title);
  sheet.text(stored.title, { size: 20, weight: '700', gap: 8 });
  sheet.text(caseSentence(answer, evidence), { size: 13, gap: 8 });
  const missing = missingWords(evidence, stored.rule);
  if (missing !== '') sheet.text(missing, { gap: 6 });
  for (const measure of answer.measures)
    sheet.text(`${measure.fallsShort ? 'Falls short' : 'Keeps'}: ${measureWords(measure)}`, {
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
    `Each run fills the line in one direction at a time through several TCP connections; the rate is what the receiving end counted after the start, method version ${METHOD_VERSION}. Against the kernel’s own counters it is true within 1 %. The far end signs what it moved; a run whose receipt is missing does not count.`,
  );
  for (const { day, runs, enough } of evidence.days) {
    sheet.heading(
      `${day}: ${runs.length} ${runs.length === 1 ? 'run' : 'runs'}${enough ? '' : ', too few for a day of the rule'}`,
    );
    sheet.row(RUN_HEAD, RUN_SHARES, { weight: '700' });
    for (const run of runs) sheet.row(runCells(run, page, moment), RUN_SHARES);
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
  sheet.document.file(record.bytes, {
    name: 'record.json',
    type: 'application/json',
    description: 'The data of the case',
  });
  return sheet.finish();
}

function runCells(run: CaseRun, { rows }: CasePage, moment: (atMs: number) => string): string[] {
  const row = rows.get(run.id)!;
  return [
    ...[moment(run.startedAtMs), row.deviceName, rateFigure(run.downBps), rateFigure(run.upBps)],
    ...[delayFigure(row.idleMs), delayFigure(row.addedDownMs), delayFigure(row.addedUpMs)],
  ];
}
