import { IMPORT_FIELD_NAMES, isFigure, unitNamed, unitsOf, type ImportField } from './import-field';
import type { ImportColumn, ImportReading } from './import-reading';
import { likeliestOrder } from './read-moment';
import { decimalsOf } from './read-number';

/** What people call these things at the head of a column, the surest first. */
const HEADINGS: readonly (readonly [RegExp, ImportField])[] = [
  [/^(started( at)?|start( time)?|timestamp|date ?time|date|day|when|measured( at)?)$/, 'started'],
  [/^(time|time of day|hour)$/, 'time'],
  [/^(ended( at)?|end( time)?|finished)$/, 'ended'],
  [/^(device|host ?name|host|computer|client|machine|name)( name)?$/, 'device'],
  [/^(spot|place|room|location|where)$/, 'spot'],
  [/^(link|medium|connection( type)?|interface|band)$/, 'link'],
  [/^(reach|scope)$/, 'reach'],
  [/^(peer|server|far end|target)( name)?$/, 'peer'],
  [/^(line|provider|isp)( name)?$/, 'line'],
  [/^profile$/, 'profile'],
  [/^added down$/, 'addedDown'],
  [/^added up$/, 'addedUp'],
  [/^(added worst|added|bufferbloat|loaded delay)$/, 'addedWorst'],
  [/^(down(load)?|downstream|receive[d]?|rx)( (rate|speed))?$/, 'down'],
  [/^(up(load)?|upstream|sent|send|tx)( (rate|speed))?$/, 'up'],
  [/^(idle|ping|latency|delay|rtt|round trip( time)?)$/, 'idle'],
  [/^jitter$/, 'jitter'],
  [/^(packet )?loss$/, 'loss'],
  [/^(notes?|comments?|remarks?)$/, 'notes'],
  [/^tags?$/, 'tags'],
  [/^set$/, 'set'],
  [/^(run )?id$/, 'id'],
];
const USUAL_UNIT = { rate: 'Mb/s', delay: 'ms', share: '%' } as const;

/** A heading without its unit, its brackets and its case. */
const plain = (heading: string) =>
  heading
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/\(.*?\)|\[.*?\]/g, ' ')
    .replace(/[_\-.:/%]+/g, ' ')
    .replace(/\b([gmk]?b(it|yte)?s?( ?ps| s)|[gmk]?bps|ms|msec|seconds?|percent|pct)\b/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

function usualUnit(field: ImportField): string | null {
  const units = unitsOf(field);
  return Object.values(USUAL_UNIT).find((unit) => unit in units) ?? null;
}

/** The unit in which a field’s figures are written: as the heading says, or the usual one. */
export function columnOf(field: ImportField, heading: string): ImportColumn {
  if (!isFigure(field)) return { field, unit: null };
  const named = unitNamed(heading);
  return { field, unit: named !== null && named in unitsOf(field) ? named : usualUnit(field) };
}

/**
 * How a file may be meant, by its headings and its first lines: what stands at the head of a column more than once is
 * taken once. A guess only: somebody looks at it before anything is brought in.
 */
export function guessReading(headings: readonly string[], lines: readonly (readonly string[])[]): ImportReading {
  const taken = new Set<ImportField>();
  const columns = headings.map((heading): ImportColumn | null => {
    const words = plain(heading);
    const field =
      IMPORT_FIELD_NAMES.find((name) => name.toLowerCase() === words.replaceAll(' ', '')) ??
      HEADINGS.find(([pattern]) => pattern.test(words))?.[1];
    if (field === undefined || taken.has(field)) return null;
    taken.add(field);
    return columnOf(field, heading);
  });
  const cellsOf = (wanted: (column: ImportColumn) => boolean) =>
    columns.flatMap((column, place) =>
      column !== null && wanted(column) ? lines.map((line) => line[place] ?? '') : [],
    );
  return {
    columns,
    dates: likeliestOrder(cellsOf(({ field }) => field === 'started' || field === 'ended')),
    decimals: decimalsOf(cellsOf(({ field }) => isFigure(field))) ?? 'point',
    otherwise: { device: '', link: 'unknown', reach: 'internet' },
  };
}
