import { readImportLine, type ImportFault, type ImportReading } from '@/core';
import type { ImportRow } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { importClock } from './import-clock';
import { linesOf, type ImportShape } from './import-file';
import type { ImportRows } from './import-rows';

/** A line that cannot be a run, and why. */
export interface RefusedLine {
  readonly number: number;
  readonly fault: ImportFault;
}

/** What becomes of the lines of a file when it is read in one way. */
export interface ImportCheck {
  readonly lines: number;
  readonly runs: number;
  /** Lines that hold no figure: runs that broke off. */
  readonly withoutFigures: number;
  /** Lines that say the same as one before, and those whose run is in the record already. */
  readonly twice: number;
  readonly known: number;
  readonly refused: number;
  /** The first of them. */
  readonly refusedLines: readonly RefusedLine[];
  readonly firstMs: number | null;
  readonly lastMs: number | null;
  /** Devices that are named and are none of this office; the first of them. */
  readonly strangers: readonly string[];
  /** The first runs, as they were read. */
  readonly samples: readonly ImportRow[];
}

const MOST_REFUSED = 100;
const MOST_STRANGERS = 12;
const MOST_SAMPLES = 8;
const AT_ONCE = 500;
/** More than this is parted into several files. */
export const MOST_IMPORTED = 500_000;

/** How far a file was read, and whether to go on. */
export interface Progress {
  readonly signal: AbortSignal;
  /** Bytes. */
  readonly read: (bytes: number) => void;
}

/** What a file, read in a way, is taken in with. */
export interface ReadFile {
  readonly file: string;
  readonly shape: ImportShape;
  readonly reading: ImportReading;
  readonly timeZone: string | null;
  readonly rows: ImportRows;
}

type Batch = { readonly rows: readonly ImportRow[]; readonly known: number };

/** The runs of a file that are not in the record yet, some at a time; of lines that are none it is told through `note`. */
export async function* runsOfFile(
  { store, wallMs }: Pick<ConsoleContext, 'store' | 'wallMs'>,
  { file, shape, reading, timeZone, rows }: ReadFile,
  { signal, read }: Progress,
  note: (line: 'line' | 'without-figures' | 'twice' | RefusedLine) => void,
): AsyncGenerator<Batch> {
  const clock = importClock(timeZone, wallMs());
  const seen = new Set<string>();
  // By its own id, where it was taken out of this console before.
  let waiting: { readonly row: ImportRow; readonly ownId: string | null }[] = [];
  const settled = async (): Promise<Batch> => {
    const ids = waiting.flatMap(({ row, ownId }) => [row.id, ...(ownId === null ? [] : [ownId])]);
    const known = await store.imports.known(ids);
    const fresh = waiting.filter(({ row, ownId }) => !known.has(row.id) && (ownId === null || !known.has(ownId)));
    const batch = { rows: fresh.map(({ row }) => row), known: waiting.length - fresh.length };
    waiting = [];
    return batch;
  };
  for await (const { number, cells } of linesOf(file, shape, read)) {
    signal.throwIfAborted();
    note('line');
    const line =
      cells === null
        ? { fault: { code: 'line-broken', field: null, typed: '' } as const }
        : cells.length < shape.headings.length && shape.format === 'csv'
          ? {
              fault: {
                code: 'cells-missing',
                field: null,
                typed: `${cells.length} of ${shape.headings.length}`,
              } as const,
            }
          : readImportLine(cells, reading, clock);
    if ('fault' in line) note({ number, fault: line.fault });
    else if ('without' in line) note('without-figures');
    else {
      const row = rows.rowOf(line.run);
      if (seen.has(row.id)) note('twice');
      else waiting.push({ row, ownId: line.run.id });
      seen.add(row.id);
    }
    if (waiting.length >= AT_ONCE) yield await settled();
  }
  if (waiting.length > 0) yield await settled();
}

/** Reads all of a file and changes nothing. */
export async function checkImport(
  context: Pick<ConsoleContext, 'store' | 'wallMs'>,
  of: ReadFile,
  progress: Progress,
): Promise<ImportCheck> {
  const counts = { lines: 0, runs: 0, withoutFigures: 0, twice: 0, known: 0, refused: 0 };
  const refusedLines: RefusedLine[] = [];
  const strangers = new Set<string>();
  const samples: ImportRow[] = [];
  let [firstMs, lastMs] = [Infinity, -Infinity];
  const note = (line: 'line' | 'without-figures' | 'twice' | RefusedLine) => {
    if (line === 'line') counts.lines += 1;
    else if (line === 'without-figures') counts.withoutFigures += 1;
    else if (line === 'twice') counts.twice += 1;
    else {
      counts.refused += 1;
      if (refusedLines.length < MOST_REFUSED) refusedLines.push(line);
    }
  };
  for await (const { rows, known } of runsOfFile(context, of, progress, note)) {
    counts.known += known;
    counts.runs += rows.length;
    for (const row of rows) {
      firstMs = Math.min(firstMs, row.startedAtMs);
      lastMs = Math.max(lastMs, row.startedAtMs);
      if (samples.length < MOST_SAMPLES) samples.push(row);
      if (strangers.size < MOST_STRANGERS && !of.rows.isDevice(row.deviceName)) strangers.add(row.deviceName);
    }
  }
  const none = counts.runs === 0;
  return {
    ...{ ...counts, refusedLines, samples, strangers: [...strangers] },
    ...{ firstMs: none ? null : firstMs, lastMs: none ? null : lastMs },
  };
}
