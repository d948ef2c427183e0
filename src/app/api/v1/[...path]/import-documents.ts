import { importFaultWords, type LinkKind, type Reach } from '@/core';
import { openImportsOf, type ConsoleContext, type ImportCheck } from '@/services';
import { done, failed, type ImportFile, type ImportLook, type Outcome } from '@/wire';

const moment = (atMs: number | null) => (atMs === null ? null : new Date(atMs).toISOString());

/** A file that is open, without where it lies. */
export function openImportDocument(context: ConsoleContext, importId: string): Outcome<ImportFile, 'import-unknown'> {
  const open = openImportsOf(context).get(importId);
  if (open === null) return failed('import-unknown');
  const { id, siteId, fileName, bytes, receivedBytes, whole, job } = open;
  return done({
    ...{ id, siteId, fileName, bytes, receivedBytes },
    whole:
      whole === null
        ? null
        : {
            ...{ format: whole.shape.format, delimiter: whole.shape.delimiter, encoding: whole.shape.encoding },
            headings: [...whole.shape.headings],
            examples: whole.examples.map((each) => [...each]),
            guess: { ...whole.guess, columns: [...whole.guess.columns] },
          },
    job: job === null ? null : { what: job.what, readBytes: job.readBytes },
  });
}

export function lookDocument(
  check: ImportCheck,
  headings: readonly string[],
  fieldAt: readonly (string | null)[],
): ImportLook {
  const { lines, runs, withoutFigures, twice, known, refused } = check;
  return {
    ...{ lines, runs, withoutFigures, twice, known, refused },
    refusedLines: check.refusedLines.map(({ number, fault }) => ({
      ...{ line: number, code: fault.code, words: importFaultWords(fault) },
      column: headings[fieldAt.indexOf(fault.field)] ?? null,
    })),
    ...{ firstAt: moment(check.firstMs), lastAt: moment(check.lastMs), strangers: [...check.strangers] },
    samples: check.samples.map((row) => ({
      ...{ startedAt: moment(row.startedAtMs)!, device: row.deviceName, spot: row.spotName, peer: row.peerName },
      ...{ linkKind: row.linkKind as LinkKind, reach: row.reach as Reach },
      ...{ downBps: row.downBps, upBps: row.upBps, idleMs: row.idleMs, addedMs: row.addedMs },
    })),
  };
}
