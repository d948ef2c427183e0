import { join } from 'node:path';
import { setImmediate } from 'node:timers/promises';
import PDFDocument from 'pdfkit';

const MARGIN = 48;
/** Points. */
const LOGO_HEIGHT = 48;
const ROW_HEIGHT = 14;
/** After so many rows others get their turn. */
const ROWS_AT_ONCE = 20;
const INK = '#1b2733';
export const QUIET = '#4f5759';
const HAIRLINE = '#d9d0c0';
const FAMILY = 'atkinson-hyperlegible-next';
type Weight = '400' | '700';
/** Part of the letters → the font that has them. */
const PARTS = ['latin', 'latin-ext'] as const;
const LATIN = /[\u0000-\u00ff\u0131\u0152\u0153\u02c6\u02dc\u2000-\u206f\u20ac\u2122\u2212]/;
const LATIN_EXT = /[\u0100-\u024f\u1e00-\u1eff]/;
/** In place of a letter that no font here has. */
const OTHER = '?';

type Part = (typeof PARTS)[number];

/** Letters that one font has. */
interface FontRun {
  readonly part: Part;
  readonly text: string;
}

/** Text in runs of one font each. */
function fontRuns(text: string): readonly FontRun[] {
  return joined(
    [...text].map((letter) => {
      if (LATIN.test(letter)) return { part: 'latin', letter };
      return LATIN_EXT.test(letter) ? { part: 'latin-ext', letter } : { part: 'latin', letter: OTHER };
    }),
  );
}

/** Neighbours of one font as one. */
function joined(letters: readonly { readonly part: Part; readonly letter: string }[]): readonly FontRun[] {
  const runs: { part: Part; text: string }[] = [];
  for (const { part, letter } of letters) {
    const last = runs.at(-1);
    if (last?.part === part) last.text += letter;
    else runs.push({ part, text: letter });
  }
  return runs.length === 0 ? [{ part: 'latin', text: '' }] : runs;
}

interface Look {
  readonly size: number;
  readonly weight: Weight;
  readonly color: string;
}

/** A4 pages with the look of the paper; each carries what it is a page of. */
export class PrintSheet {
  readonly #document: PDFKit.PDFDocument;
  #lacksLetters = false;

  constructor(
    fonts: string,
    private readonly head: string,
    title: string,
    private readonly signal?: AbortSignal,
  ) {
    this.#document = new PDFDocument({
      ...{ size: 'A4', margins: { top: MARGIN + 14, bottom: MARGIN + 14, left: MARGIN, right: MARGIN } },
      ...{ bufferPages: true, tagged: true, pdfVersion: '1.7', lang: 'en', displayTitle: true, info: { Title: title } },
    });
    for (const part of PARTS)
      for (const weight of ['400', '700'])
        this.#document.registerFont(`${part} ${weight}`, join(fonts, `${FAMILY}-${part}-${weight}-normal.woff`));
  }

  get width(): number {
    return this.#document.page.width - 2 * MARGIN;
  }

  get #bottom(): number {
    return this.#document.page.height - MARGIN - 14;
  }

  /** Whether a letter was put that no font here has. */
  get lacksLetters(): boolean {
    return this.#lacksLetters;
  }

  #runsOf(text: string): readonly FontRun[] {
    const runs = fontRuns(text);
    this.#lacksLetters ||= runs.map((run) => run.text).join('') !== text;
    return runs;
  }

  /** Goes on a new page where so much does not fit any more; says whether it did. */
  room(height: number): boolean {
    if (this.#document.y + height <= this.#bottom) return false;
    this.#document.addPage();
    return true;
  }

  /** Rows below their heads; the heads stand again on each page that the rows run over to. */
  async table(head: readonly string[], shares: readonly number[], rows: readonly (readonly string[])[]): Promise<void> {
    this.room(2 * ROW_HEIGHT);
    this.row(head, shares, { weight: '700' });
    for (const [place, row] of rows.entries()) {
      if (place % ROWS_AT_ONCE === 0) await this.#breath();
      if (this.room(ROW_HEIGHT)) this.row(head, shares, { weight: '700' });
      this.row(row, shares);
    }
  }

  /** Lets the console do other things meanwhile, and ends here when nobody waits for it any more. */
  async #breath(): Promise<void> {
    await setImmediate();
    this.signal?.throwIfAborted();
  }

  text(text: string, { size = 10, weight = '400', color = INK, gap = 4, x = MARGIN, width = this.width } = {}): void {
    const runs = this.#runsOf(text);
    this.#document.fillColor(color).fontSize(size);
    runs.forEach((run, index) => {
      this.#document.font(`${run.part} ${weight}`);
      const options = { width, continued: index < runs.length - 1 };
      if (index === 0) this.#document.text(run.text, x, this.#document.y, options);
      else this.#document.text(run.text, options);
    });
    this.#document.y += gap;
  }

  /** Who made it, at the right of the first page, with a picture where there is one. */
  letterhead({
    name,
    lines,
    logo,
  }: {
    readonly name: string;
    readonly lines: readonly string[];
    readonly logo: string | null;
  }): void {
    if (name === '' && lines.length === 0 && logo === null) return;
    const top = this.#document.y;
    const half = this.width / 2;
    if (logo !== null) this.#document.image(logo, MARGIN, top, { fit: [half - 20, LOGO_HEIGHT] });
    const x = MARGIN + half;
    if (name !== '') this.text(name, { size: 11, weight: '700', gap: 1, x, width: half });
    for (const line of lines) this.text(line, { size: 9, color: QUIET, gap: 0, x, width: half });
    this.#document.x = MARGIN;
    this.#document.y = Math.max(this.#document.y, logo === null ? top : top + LOGO_HEIGHT) + 16;
  }

  /** A heading is never parted from what follows it. */
  heading(text: string): void {
    this.room(70);
    this.#document.y += 8;
    this.text(text, { size: 13, weight: '700', gap: 4 });
  }

  /** One line that is cut where it would be too long. */
  #line(text: string, x: number, y: number, width: number, look: Look): void {
    this.#document.fontSize(look.size).fillColor(look.color);
    const letters = this.#runsOf(text).flatMap(({ part, text: of }) => [...of].map((letter) => ({ part, letter })));
    const widthOf = ({ part, letter }: (typeof letters)[number]) =>
      this.#document.font(`${part} ${look.weight}`).widthOfString(letter);
    let [at, fitting] = [0, 0];
    while (fitting < letters.length && at + widthOf(letters[fitting]!) <= width) at += widthOf(letters[fitting++]!);
    const cut =
      fitting < letters.length
        ? [...letters.slice(0, Math.max(0, fitting - 1)), { part: 'latin', letter: '…' } as const]
        : letters;
    let from = x;
    for (const run of joined(cut)) {
      this.#document.font(`${run.part} ${look.weight}`).text(run.text, from, y, { lineBreak: false });
      from += this.#document.widthOfString(run.text);
    }
  }

  /** What comes with the file. */
  attach(bytes: Buffer, name: string, type: string, description: string): void {
    this.#document.file(bytes, { name, type, description });
  }

  /** A row of cells; columns by their shares of the width. */
  row(
    cells: readonly string[],
    shares: readonly number[],
    look: { readonly weight?: Weight; readonly color?: string } = {},
  ): void {
    this.room(ROW_HEIGHT);
    const y = this.#document.y;
    let x = MARGIN;
    cells.forEach((cell, index) => {
      const width = shares[index]! * this.width;
      this.#line(cell, x, y, width - 4, { size: 8.5, weight: look.weight ?? '400', color: look.color ?? INK });
      x += width;
    });
    this.#document.y = y + ROW_HEIGHT;
    this.#document
      .moveTo(MARGIN, this.#document.y - 3)
      .lineTo(MARGIN + this.width, this.#document.y - 3)
      .lineWidth(0.4)
      .strokeColor(HAIRLINE)
      .stroke();
  }

  /** What each page is a page of, and its number; after all is written. */
  finish(): Promise<Buffer> {
    const { start, count } = this.#document.bufferedPageRange();
    for (let page = start; page < start + count; page += 1) {
      this.#document.switchToPage(page);
      const { margins } = this.#document.page;
      this.#document.page.margins = { ...margins, top: 0, bottom: 0 };
      this.#line(this.head, MARGIN, MARGIN - 18, this.width, { size: 8, weight: '400', color: QUIET });
      this.#document.font('latin 400').fontSize(8).fillColor(QUIET);
      this.#document.text(`page ${page + 1} of ${count}`, MARGIN, this.#document.page.height - MARGIN, {
        width: this.width,
        align: 'right',
        lineBreak: false,
      });
      this.#document.page.margins = margins;
    }
    const parts: Buffer[] = [];
    return new Promise((resolve, reject) => {
      this.#document.on('data', (part: Buffer) => parts.push(part));
      this.#document.on('end', () => resolve(Buffer.concat(parts)));
      this.#document.on('error', reject);
      this.#document.end();
    });
  }
}
