const FORMAT = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: '2-digit',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A moment in the console's own time zone, made by the server: "Tue, 24 Nov, 19:17". */
export const wallTimeWords = (atMs: number) => FORMAT.format(new Date(atMs));

/** The same as an element. */
export function WallTime({ atMs, className }: { readonly atMs: number; readonly className?: string }) {
  return (
    <time dateTime={new Date(atMs).toISOString()} className={className}>
      {wallTimeWords(atMs)}
    </time>
  );
}
