const PARTS = { weekday: 'short', day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' } as const;
/** Making one costs more than reading it ten thousand times. */
const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(timeZone: string | null, withYear: boolean): Intl.DateTimeFormat {
  const key = `${timeZone} ${withYear}`;
  let format = formats.get(key);
  if (format === undefined) {
    format = new Intl.DateTimeFormat('en-GB', {
      ...{ ...PARTS, timeZone: timeZone ?? undefined },
      ...(withYear ? { year: 'numeric', weekday: undefined } : {}),
    });
    formats.set(key, format);
  }
  return format;
}

const yearOf = (atMs: number, timeZone: string | null) =>
  new Intl.DateTimeFormat('en-GB', { year: 'numeric', timeZone: timeZone ?? undefined }).format(atMs);

interface TimeFacts {
  /** IANA name; null: that of the console. */
  readonly timeZone?: string | null;
  /** The year is shown where it is not the one of this moment. */
  readonly nowMs?: number;
}

/** A moment as it was on the wall, made by the server: "Tue, 24 Nov, 19:17"; of another year "24 Nov 2025, 19:17". */
export function wallTimeWords(atMs: number, { timeZone = null, nowMs }: TimeFacts = {}): string {
  const withYear =
    nowMs !== undefined && Math.abs(nowMs - atMs) > 20 * 3600_000 && yearOf(atMs, timeZone) !== yearOf(nowMs, timeZone);
  return formatOf(timeZone, withYear).format(new Date(atMs));
}

/** The same as an element. */
export function WallTime({ atMs, className }: { readonly atMs: number; readonly className?: string }) {
  return (
    <time dateTime={new Date(atMs).toISOString()} className={className}>
      {wallTimeWords(atMs)}
    </time>
  );
}
