import { createReadStream } from 'node:fs';
import { open, readFile } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { parse as parseAll } from 'csv-parse/sync';
import { parse, type CsvError, type Info } from 'csv-parse';
import { done, failed, type Outcome } from '@/wire';

type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** What a file is, as far as that can be told from it. */
export interface ImportShape {
  readonly format: 'csv' | 'json' | 'ndjson';
  /** Between the cells of a CSV. */
  readonly delimiter: string;
  readonly encoding: Encoding;
  readonly headings: readonly string[];
  /** Whether the first line holds them; else they are made up. */
  readonly hasHeadings: boolean;
}

/** A line of a file; without cells it is broken. `number`: of the line that it ends in, as an editor counts, from 1. */
export interface ImportLine {
  readonly number: number;
  readonly cells: readonly string[] | null;
}

const HEAD_BYTES = 256 * 1024;
const DELIMITERS = [',', ';', '\t', '|'];
/** Files that were put together have several of them. */
const LINE_ENDS = ['\r\n', '\n', '\r'];
/** A cell is no book: what runs on for longer has a quote that nobody closed. */
const LONGEST_LINE = 64 * 1024;
const MOST_COLUMNS = 200;
const FIRST_OBJECTS = 200;

/** By its mark, else UTF-8 where all of it is, else what Windows wrote (each of its bytes means something). */
async function encodingOf(file: string, head: Buffer): Promise<Encoding> {
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le';
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be';
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for await (const part of createReadStream(file)) decoder.decode(part as Buffer, { stream: true });
    decoder.decode();
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** The text of a file, a part at a time, without its mark; `onBytes` hears how far it was read. */
async function* textOf(file: string, encoding: Encoding, onBytes?: (bytes: number) => void): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  let bytes = 0;
  for await (const part of createReadStream(file)) {
    bytes += (part as Buffer).length;
    onBytes?.(bytes);
    yield decoder.decode(part as Buffer, { stream: true });
  }
  yield decoder.decode();
}

/** What parts the cells: the sign with which most of the first lines have the same number of them, and more than one. */
function delimiterOf(head: string): string {
  const scores = DELIMITERS.map((delimiter) => {
    const lines: string[][] = parseAll(head, {
      ...{
        delimiter,
        record_delimiter: LINE_ENDS,
        relax_column_count: true,
        relax_quotes: true,
        skip_empty_lines: true,
        to: 20,
      },
      skip_records_with_error: true,
    });
    const width = lines[0]?.length ?? 1;
    const alike = lines.filter(({ length }) => length === width).length;
    return { delimiter, score: width > 1 ? (alike / lines.length) * Math.min(width, 12) : 0 };
  });
  return scores.reduce((best, each) => (each.score > best.score ? each : best)).delimiter;
}

const cellText = (value: unknown): string => {
  if (value === null || value === undefined) return '';
  if (Array.isArray(value)) return value.map(cellText).join(' ');
  return typeof value === 'string' ? value : JSON.stringify(value);
};
const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const membersOf = (objects: readonly unknown[]) =>
  [...new Set(objects.filter(isObject).flatMap((object) => Object.keys(object)))].slice(0, MOST_COLUMNS);

/** A text of JSON; undefined: it is none. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Whether a first line is the head of a table: cells of which none is a figure or a time, and none is blank. */
const isHead = (cells: readonly string[]) => cells.every((cell) => /^[^\d]|[A-Za-z_]{3}/.test(cell.trim()));

/** Tells what a file is. A file that is none of the three, or has nothing in it, is refused. */
export async function shapeOf(file: string): Promise<Outcome<ImportShape, 'import-unreadable'>> {
  const handle = await open(file);
  const head = Buffer.alloc(HEAD_BYTES);
  let begin: Buffer;
  try {
    const { bytesRead } = await handle.read(head, 0, HEAD_BYTES, 0);
    begin = head.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
  const encoding = await encodingOf(file, begin);
  const text = new TextDecoder(encoding).decode(begin, { stream: true });
  // A file of another kind (a spreadsheet, an archive, a picture) has zeros in it.
  if (text.trim() === '' || text.includes('\0')) return failed('import-unreadable');
  const shape = { delimiter: '', encoding, hasHeadings: true };
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const whole = begin.length < HEAD_BYTES ? lines : lines.slice(0, -1);
  if (text.trimStart().startsWith('[')) {
    const all = parsed(new TextDecoder(encoding).decode(await readFile(file)));
    const headings = Array.isArray(all) ? membersOf(all.slice(0, FIRST_OBJECTS)) : [];
    return headings.length === 0 ? failed('import-unreadable') : done({ ...shape, format: 'json', headings });
  }
  if (text.trimStart().startsWith('{')) {
    const headings = membersOf(whole.slice(0, FIRST_OBJECTS).map(parsed));
    return headings.length === 0 ? failed('import-unreadable') : done({ ...shape, format: 'ndjson', headings });
  }
  const delimiter = delimiterOf(`${whole.slice(0, 20).join('\n')}\n`);
  const csv: ImportShape = { ...shape, format: 'csv', delimiter, headings: [] };
  for await (const { cells } of linesOf(file, csv)) {
    if (cells === null || cells.length < 2 || cells.length > MOST_COLUMNS) return failed('import-unreadable');
    return done(
      isHead(cells)
        ? { ...csv, headings: cells.map((cell) => cell.trim()) }
        : { ...csv, hasHeadings: false, headings: cells.map((_, place) => `column ${place + 1}`) },
    );
  }
  return failed('import-unreadable');
}

function lineOf(error: unknown, otherwise: number): number {
  const { lines } = (error ?? {}) as { readonly lines?: unknown };
  return typeof lines === 'number' ? lines : otherwise;
}

async function* csvLines(text: AsyncGenerator<string>, { delimiter }: ImportShape): AsyncGenerator<ImportLine> {
  const broken: number[] = [];
  const parser = parse({
    ...{
      delimiter,
      record_delimiter: LINE_ENDS,
      info: true,
      skip_empty_lines: true,
      relax_column_count: true,
      max_record_size: LONGEST_LINE,
    },
    skip_records_with_error: true,
    on_skip: (error: CsvError | undefined) => {
      broken.push(lineOf(error, 0));
      return undefined;
    },
  });
  const source = Readable.from(text);
  source.on('error', (error) => parser.destroy(error));
  source.pipe(parser);
  let last = 0;
  try {
    for await (const { record, info } of parser as AsyncIterable<{ record: string[]; info: Info }>) {
      last = info.lines;
      while (broken.length > 0) yield { number: broken.shift()!, cells: null };
      yield { number: last, cells: record };
    }
  } catch (error) {
    // A quote that nobody closes runs to the end of the file, or of what a line may hold.
    broken.push(lineOf(error, last + 1));
  } finally {
    source.destroy();
  }
  while (broken.length > 0) yield { number: broken.shift()!, cells: null };
}

async function* ndjsonLines(text: AsyncGenerator<string>, headings: readonly string[]): AsyncGenerator<ImportLine> {
  let number = 0;
  for await (const line of createInterface({ input: Readable.from(text), crlfDelay: Infinity })) {
    number += 1;
    if (line.trim() === '') continue;
    const object = parsed(line);
    yield { number, cells: isObject(object) ? headings.map((name) => cellText(object[name])) : null };
  }
}

/** The lines of a file below its head, in order. `onBytes` hears how far it was read. */
export async function* linesOf(
  file: string,
  shape: ImportShape,
  onBytes?: (bytes: number) => void,
): AsyncGenerator<ImportLine> {
  const text = textOf(file, shape.encoding, onBytes);
  if (shape.format === 'csv') {
    // Blank headings: the head itself is asked for.
    let skip = shape.hasHeadings && shape.headings.length > 0;
    for await (const line of csvLines(text, shape)) {
      if (!skip) yield line;
      skip = false;
    }
    return;
  }
  if (shape.format === 'ndjson') {
    yield* ndjsonLines(text, shape.headings);
    return;
  }
  let whole = '';
  for await (const part of text) whole += part;
  const all = parsed(whole);
  const objects: readonly unknown[] = Array.isArray(all) ? all : [];
  for (const [index, object] of objects.entries())
    yield {
      number: index + 1,
      cells: isObject(object) ? shape.headings.map((name) => cellText(object[name])) : null,
    };
}
