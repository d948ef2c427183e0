const JSON_COLUMNS = new Set<string>(['plan', 'brief', 'link', 'told']);
const TRUTH_COLUMNS = new Set<string>(['practice', 'demo']);

/** One JSON array of values in place of a row: a thousand rows come as one text, which is several times as fast. */
export function rowsAsOne(columns: readonly string[], ordered = true): string {
  const values = columns.map((name) => (JSON_COLUMNS.has(name) ? `json("${name}")` : `"${name}"`));
  return `json_group_array(json_array(${values.join(', ')})${ordered ? ' ORDER BY "startedAtMs"' : ''})`;
}

/** The rows of what `rowsAsOne` made. */
export function fromOne<Run>(columns: readonly string[], text: string): Run[] {
  const truths = columns.flatMap((name, place) => (TRUTH_COLUMNS.has(name) ? [place] : []));
  return (JSON.parse(text) as unknown[][]).map((values) => {
    for (const place of truths) if (values[place] !== null) values[place] = values[place] === 1;
    const run: Record<string, unknown> = {};
    for (let place = 0; place < columns.length; place += 1) run[columns[place]!] = values[place];
    return run as Run;
  });
}
