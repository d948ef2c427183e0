import sqlite3 from 'sqlite3';

/**
 * Every connection that Sequelize opens, those of transactions included, gets the same settings: write-ahead log,
 * full sync at each commit (a record is there after a power cut), foreign keys, and patience with a busy file.
 */
const SETTINGS = 'PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;';
const BUSY_MS = 5000;

type OpenCallback = (error: Error | null) => void;
type RowsCallback = (error: Error | null, rows: unknown[]) => void;
/** What comes after the statement: values, and at the end who is told. */
type Rest = readonly unknown[];

const ASKS_FOR_COLUMNS = /^PRAGMA table_info\(/;
const CHANGES_TABLES = /^\s*(alter|create|drop)\b/i;
const BEGINS = /^\s*begin\b/i;
const ENDS = /^\s*(commit|rollback)\b/i;
const IN_MEMORY = ':memory:';

/** Files of which a statement that may change a table has not been committed yet. */
const changing = new Set<string>();
/** By file and question: what columns its tables have, as asked before. All connections of this process share it. */
const columns = new Map<string, Map<string, unknown[]>>();

/**
 * Before each reading Sequelize asks SQLite what columns the table has, which doubles the questions. Only a migration changes
 * the answer, so each is asked once, and anew after a statement that may change a table.
 */
export class SettledDatabase extends sqlite3.Database {
  readonly #file: string;
  #inTransaction = false;

  constructor(filename: string, mode: number, callback: OpenCallback) {
    super(filename, mode, (error) => {
      if (error !== null) return callback(error);
      super.exec(SETTINGS, callback);
    });
    this.#file = filename;
    this.configure('busyTimeout', BUSY_MS);
    // One statement after the other: those of one connection wait for each other anyway, each with a thread of its own.
    this.serialize();
  }

  /** Whether all that was begun has ended. */
  get isBetweenTransactions(): boolean {
    return !this.#inTransaction;
  }

  /**
   * Sequelize writes down a stack for each statement, in case it should fail, and to write them out takes a fifteenth of the console's time. What failed
   * is told by the statement itself, which the error holds.
   */
  override serialize(callback?: () => void): void {
    const limit = Error.stackTraceLimit;
    Error.stackTraceLimit = 0;
    try {
      super.serialize(callback);
    } finally {
      Error.stackTraceLimit = limit;
    }
  }

  override all(sql: string, ...rest: never[]): this {
    const told: unknown = rest.at(-1);
    if (!ASKS_FOR_COLUMNS.test(sql) || typeof told !== 'function' || this.#file === IN_MEMORY)
      return super.all(sql, ...(this.#noted(sql, rest) as never[]));
    const tell = told as RowsCallback;
    const known = columns.get(this.#file)?.get(sql);
    if (known !== undefined && !changing.has(this.#file)) {
      queueMicrotask(() => tell.call(this, null, known));
      return this;
    }
    return super.all(sql, (error: Error | null, rows: unknown[]) => {
      if (error === null && rows.length > 0) {
        const ofFile = columns.get(this.#file) ?? new Map<string, unknown[]>();
        columns.set(this.#file, ofFile.set(sql, rows));
      }
      tell.call(this, error, rows);
    });
  }

  override run(sql: string, ...rest: never[]): this {
    return super.run(sql, ...(this.#noted(sql, rest) as never[]));
  }

  override exec(sql: string, callback?: OpenCallback): this {
    return super.exec(sql, ...(this.#noted(sql, callback === undefined ? [] : [callback]) as [OpenCallback?]));
  }

  /** Sees what a statement does to tables: in a transaction that holds once it has ended, else once the statement has. */
  #noted(sql: string, rest: Rest): Rest {
    if (BEGINS.test(sql)) this.#inTransaction = true;
    if (ENDS.test(sql)) {
      const ended = this.#endedBefore(rest);
      return changing.has(this.#file) ? toldBefore(ended, this.#forget) : ended;
    }
    if (!CHANGES_TABLES.test(sql)) return rest;
    changing.add(this.#file);
    return this.#inTransaction ? rest : toldBefore(rest, this.#forget);
  }

  /**
   * A transaction that could not be committed is taken back before anybody hears of it: left open it would keep everybody else
   * from writing.
   */
  #endedBefore(rest: Rest): Rest {
    const told = rest.at(-1);
    const tell = typeof told === 'function' ? (told as (error: Error | null) => void) : () => undefined;
    // Where nothing is open any more, nothing is taken back.
    const takeBack = (then: () => void) => super.exec('ROLLBACK', then);
    const over = () => (this.#inTransaction = false);
    return [
      ...(typeof told === 'function' ? rest.slice(0, -1) : rest),
      function (this: unknown, error: Error | null) {
        const news = () => {
          over();
          tell.call(this, error);
        };
        if (error === null) news();
        else takeBack(news);
      },
    ];
  }

  readonly #forget = () => {
    changing.delete(this.#file);
    columns.delete(this.#file);
  };
}

/** What comes after a statement, with somebody who hears of its end before whoever is told of it. */
function toldBefore(rest: Rest, hear: (error: unknown) => void): Rest {
  const told = rest.at(-1);
  if (typeof told !== 'function') return [...rest, hear];
  return [
    ...rest.slice(0, -1),
    // Whoever is told finds in `this` what the statement did.
    function (this: unknown, ...news: unknown[]) {
      hear(news[0]);
      Reflect.apply(told, this, news);
    },
  ];
}

export const sqliteWithSettings = { ...sqlite3, Database: SettledDatabase };
