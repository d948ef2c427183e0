/**
 * Many rows as one text for each column: read sooner than row after row. What many rows have in common is one and the same
 * string or object here, so that ten thousand rows are held, and made into something else, with little of it.
 */

/** Which columns, by how they are read. */
export interface ColumnNames {
  readonly texts: readonly string[];
  readonly numbers: readonly string[];
  /** Kept as JSON, and the same for many rows. */
  readonly documents: readonly string[];
  /** A JSON array that each row has of its own, or null. */
  readonly lists: readonly string[];
}

/** What `columnsAsTexts` answers. */
export type ColumnTexts = Readonly<Record<string, string>> & { readonly rows: number };

/** Members of a document (two at least) as one JSON array, as SQL; an index is written with the same words. */
export function pickedFrom(name: string, members: readonly [string, string, ...string[]]): string {
  return `json_extract(${name}, ${members.map((member) => `'$.${member}'`).join(', ')})`;
}

/** SQL that answers with one row for all rows of `select`, whose order is kept. */
export function columnsAsTexts({ texts, numbers, documents, lists }: ColumnNames, select: string): string {
  const plain = [...texts, ...numbers, ...documents].map((name) => `json_group_array(${name}) AS ${name}`);
  const own = lists.map((name) => `'[' || group_concat(coalesce(${name}, 'null')) || ']' AS ${name}`);
  return `SELECT COUNT(*) AS rows, ${[...plain, ...own].join(', ')} FROM (${select})`;
}

/** Gives of all that are alike the first. */
function sharing<Value>(make: (text: string) => Value): (text: string | null) => Value | null {
  const known = new Map<string, Value>();
  return (text) => {
    if (text === null) return null;
    let value = known.get(text);
    if (value === undefined) known.set(text, (value = make(text)));
    return value;
  };
}

/** Reads single columns of what came; each a list with a value for each row. */
export function columnsOf(came: ColumnTexts) {
  const list = <Value>(name: string) => (came.rows === 0 ? [] : (JSON.parse(came[name]!) as Value[]));
  return {
    rows: came.rows,
    /** Texts of which each row has one of its own, numbers, and lists. */
    own: list,
    /** Texts that many rows have in common. */
    shared: <Text extends string | null>(name: string) => list<Text>(name).map(sharing((text) => text)) as Text[],
    documents: <Of>(name: string) => list<string | null>(name).map(sharing((text) => JSON.parse(text) as Of)),
  };
}

/** Where a part of rows ended that are in the order of `startedAtMs` and `id`. */
export interface RowPlace {
  readonly startedAtMs: number;
  readonly id: string;
}

/** So many rows are read at once. */
export const PART_ROWS = 4000;

function lastOf(came: ColumnTexts): RowPlace {
  const { own } = columnsOf(came);
  return { startedAtMs: own<number>('startedAtMs').at(-1)!, id: own<string>('id').at(-1)! };
}

/**
 * Reads many rows part by part, each of `PART_ROWS` but for the last: while a part is made into something here, the database
 * reads the next. `read`: those behind a place; it must be in the order of `startedAtMs` and `id`, either way.
 */
export async function inParts<Made>(
  begin: RowPlace,
  read: (after: RowPlace) => Promise<ColumnTexts>,
  make: (came: ColumnTexts) => Made[],
  most = Infinity,
): Promise<Made[]> {
  const parts: Made[][] = [];
  let coming: Promise<ColumnTexts> | null = read(begin);
  for (let rows = 0; coming !== null;) {
    const came: ColumnTexts = await coming;
    rows += came.rows;
    coming = came.rows < PART_ROWS || rows >= most ? null : read(lastOf(came));
    parts.push(make(came));
  }
  return parts.flat().slice(0, most);
}
