/** Why the database could not write, in the words of SQLite: SQLITE_FULL, _READONLY or _IOERR; null: it was something else. */
export function diskTroubleOf(error: unknown): string | null {
  const code = (error as { original?: { code?: unknown } } | null)?.original?.code;
  return typeof code === 'string' && /^SQLITE_(FULL|READONLY|IOERR)/.test(code) ? code : null;
}
