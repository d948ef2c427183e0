const JSON_COLUMNS = new Set<string>(['plan', 'brief', 'link', 'told']);
const TRUTH_COLUMNS = new Set<string>(['practice', 'demo', 'simulated']);

const isDocument = (name: string) => JSON_COLUMNS.has(name);

/**
 * One JSON array of values in place of a row: a thousand rows come as one text, which is several times as fast. What is kept
 * as JSON goes in as it stands, behind the array of the plain values: reading it to write it again takes most of the time.
 */
export function rowsAsOne(columns: readonly string[], orderBy: string | null = 'startedAtMs'): string {
  const plain = columns.filter((name) => !isDocument(name)).map((name) => `"${name}"`);
  const documents = columns.filter(isDocument).map((name) => ` || ',' || coalesce("${name}", 'null')`);
  const row = `'[' || json_array(${plain.join(', ')})${documents.join('')} || ']'`;
  return `'[' || coalesce(group_concat(${row}, ','${orderBy === null ? '' : ` ORDER BY "${orderBy}"`}), '') || ']'`;
}

/** The rows of what `rowsAsOne` made. */
export function fromOne<Run>(columns: readonly string[], text: string): Run[] {
  const plain = columns.filter((name) => !isDocument(name));
  const documents = columns.filter(isDocument);
  const truths = plain.flatMap((name, place) => (TRUTH_COLUMNS.has(name) ? [place] : []));
  return (JSON.parse(text) as [unknown[], ...unknown[][]][]).map(([values, ...of]) => {
    for (const place of truths) if (values[place] !== null) values[place] = values[place] === 1;
    const run: Record<string, unknown> = {};
    for (let place = 0; place < plain.length; place += 1) run[plain[place]!] = values[place];
    for (let place = 0; place < documents.length; place += 1) run[documents[place]!] = of[place];
    return run as Run;
  });
}
