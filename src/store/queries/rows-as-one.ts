const JSON_COLUMNS = new Set<string>(['plan', 'brief', 'link', 'told']);
const TRUTH_COLUMNS = new Set<string>(['practice', 'demo']);

/** One JSON array of values in place of a row: a thousand rows come as one text, which is several times as fast. */
export function rowsAsOne(columns: readonly string[]): string {
  const values = columns.map((name) => (JSON_COLUMNS.has(name) ? `json("${name}")` : `"${name}"`));
  return `json_group_array(json_array(${values.join(', ')}) ORDER BY "startedAtMs")`;
}

/** The rows of what `rowsAsOne` made. */
export function fromOne<Run>(columns: readonly string[], text: string): Run[] {
  return (JSON.parse(text) as unknown[][]).map((values) => {
    const run: Record<string, unknown> = {};
    columns.forEach((name, index) => {
      const value = values[index];
      run[name] = TRUTH_COLUMNS.has(name) && value !== null ? value === 1 : value;
    });
    return run as Run;
  });
}
