import { BLOAT_LIMITS_MS, foldedName, type LedgerTerm } from '@/core';

/** A condition in SQL on the table of runs, with the values that it names. */
export interface Condition {
  readonly sql: string;
  readonly values: readonly (string | number)[];
}

/** What terms are looked up in: names by field, and the text of notes, all of one office. */
export interface LookedUp {
  /** Of each field: a name as it is, by the name as it is searched. */
  readonly names: Readonly<Record<'device' | 'spot' | 'peer' | 'line' | 'tag', readonly (readonly [string, string])[]>>;
  /** Runs of which somebody wrote something: the text as it is searched. */
  readonly notes: readonly { readonly id: string; readonly folded: string }[];
  /** Ids of the runs that a finding or a swap is about. */
  readonly runsOf: ReadonlyMap<string, readonly string[]>;
  readonly siteId: string;
}

const COLUMNS = {
  ...{ device: 'deviceName', spot: 'spotName', peer: 'peerName', line: 'lineName', link: 'linkKind', reach: 'reach' },
  ...{ verdict: 'verdict', state: 'status', why: 'reason', profile: 'profile', counts: 'evidence' },
  ...{ down: 'downBps', up: 'upBps', idle: 'idleMs', added: 'addedMs' },
} as const;

const NEVER: Condition = { sql: '0', values: [] };
const marks = (values: readonly unknown[]) => values.map(() => '?').join(', ');
const oneOf = (column: string, values: readonly string[]): Condition =>
  values.length === 0 ? NEVER : { sql: `${column} IN (${marks(values)})`, values };

function anyOf(conditions: readonly Condition[]): Condition {
  const possible = conditions.filter(({ sql }) => sql !== NEVER.sql);
  if (possible.length === 0) return NEVER;
  return { sql: `(${possible.map(({ sql }) => sql).join(' OR ')})`, values: possible.flatMap(({ values }) => values) };
}

const fitting = (names: readonly (readonly [string, string])[], text: string) => {
  const wanted = foldedName(text);
  return names.flatMap(([name, folded]) => (folded.includes(wanted) ? [name] : []));
};

/** However many they are: SQLite binds only so many values in one statement. */
const amongIds = (ids: readonly string[]): Condition =>
  ids.length === 0 ? NEVER : { sql: 'id IN (SELECT value FROM json_each(?))', values: [JSON.stringify(ids)] };

function inNotes({ notes }: LookedUp, text: string): Condition {
  const wanted = foldedName(text);
  return amongIds(notes.flatMap(({ id, folded }) => (folded.includes(wanted) ? [id] : [])));
}

function tagged({ names, siteId }: LookedUp, text: string): Condition {
  const tags = fitting(names.tag, text);
  if (tags.length === 0) return NEVER;
  const sql = `id IN (SELECT runId FROM run_tags WHERE siteId = ? AND tag IN (${marks(tags)}))`;
  return { sql, values: [siteId, ...tags] };
}

function named(field: 'device' | 'spot' | 'peer' | 'line', { names }: LookedUp, text: string): Condition {
  return oneOf(COLUMNS[field], fitting(names[field], text));
}

function textCondition(field: (LedgerTerm & { is: 'text' })['field'], at: LookedUp, text: string): Condition {
  if (field === 'note') return inNotes(at, text);
  return field === 'tag' ? tagged(at, text) : named(field, at, text);
}

/** A rating is a range of added delay. */
function delayCondition(rating: string): Condition {
  const place = BLOAT_LIMITS_MS.findIndex(([word]) => word === rating);
  const from = BLOAT_LIMITS_MS[place === -1 ? BLOAT_LIMITS_MS.length - 1 : place - 1]?.[1];
  const below = BLOAT_LIMITS_MS[place]?.[1];
  const parts = [
    ...(from === undefined ? ['addedMs IS NOT NULL'] : ['addedMs >= ?']),
    ...(below === undefined ? [] : ['addedMs < ?']),
  ];
  return { sql: `(${parts.join(' AND ')})`, values: [from ?? [], below ?? []].flat() };
}

function choiceCondition(field: (LedgerTerm & { is: 'choice' })['field'], values: readonly string[]): Condition {
  if (field === 'delay') return anyOf(values.map(delayCondition));
  if (field === 'flag') return anyOf(values.map((value) => ({ sql: 'instr(flags, ?) > 0', values: [` ${value} `] })));
  return oneOf(COLUMNS[field], values);
}

function rangeCondition(
  column: string,
  low: number | null,
  high: number | null,
  { low: over, high: under }: { readonly low: '>' | '>='; readonly high: '<' | '<=' },
): Condition {
  const parts = [...(low === null ? [] : [`${column} ${over} ?`]), ...(high === null ? [] : [`${column} ${under} ?`])];
  return { sql: `(${parts.join(' AND ')})`, values: [low ?? [], high ?? []].flat() };
}

/** The hour that the clock at the office showed, worked out from how clocks went there. */
function hoursCondition({ from, until, offsets }: LedgerTerm & { is: 'hours' }): Condition {
  const cases = offsets.flatMap(({ untilMs }) => (untilMs === null ? [] : ['WHEN startedAtMs < ? THEN ?']));
  const values = offsets.flatMap(({ untilMs, minutes }) => (untilMs === null ? [] : [untilMs, minutes]));
  const last = offsets.at(-1)?.minutes ?? 0;
  const minutes = cases.length === 0 ? '?' : `CASE ${cases.join(' ')} ELSE ? END`;
  const hour = `(CAST((startedAtMs + 60000.0 * (${minutes})) / 3600000.0 AS INTEGER) % 24)`;
  const how = from < until ? `${hour} >= ? AND ${hour} < ?` : `${hour} >= ? OR ${hour} < ?`;
  return { sql: `(${how})`, values: [...values, last, from, ...values, last, until] };
}

function conditionOf(term: LedgerTerm, at: LookedUp): Condition {
  switch (term.is) {
    case 'words':
      return anyOf([
        ...(['device', 'spot', 'peer', 'line'] as const).map((field) => named(field, at, term.text)),
        ...[inNotes(at, term.text), tagged(at, term.text)],
      ]);
    case 'text':
      return anyOf(term.texts.map((text) => textCondition(term.field, at, text)));
    case 'choice':
      return choiceCondition(term.field, term.values);
    case 'figure':
      return rangeCondition(
        COLUMNS[term.field],
        term.low,
        term.high,
        term.withEnds ? { low: '>=', high: '<=' } : { low: '>', high: '<' },
      );
    case 'time':
      return rangeCondition('startedAtMs', term.fromMs, term.untilMs, { low: '>=', high: '<' });
    case 'hours':
      return hoursCondition(term);
    case 'run-ids':
      return amongIds(term.ids);
    case 'device-id':
      return oneOf('deviceId', [term.id]);
    case 'id':
      return amongIds(at.runsOf.get(`${term.field} ${term.id}`) ?? []);
  }
}

/** All terms as one condition. What a run does not have is not what is asked for, and not its contrary either for figures. */
export function ledgerCondition(terms: readonly LedgerTerm[], at: LookedUp): Condition {
  const conditions = terms.map((term) => {
    const { sql, values } = conditionOf(term, at);
    return { sql: term.not ? `NOT coalesce(${sql}, ${term.is === 'figure' ? 1 : 0})` : sql, values };
  });
  return {
    sql: ['siteId = ?', ...conditions.map(({ sql }) => sql)].join(' AND '),
    values: [at.siteId, ...conditions.flatMap(({ values }) => values)],
  };
}
