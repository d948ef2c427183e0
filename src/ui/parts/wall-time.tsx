const FORMAT = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: '2-digit',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A moment in the console's own time zone: "Tue, 24 Nov, 19:17". */
export function WallTime({ atMs, className }: { readonly atMs: number; readonly className?: string }) {
  const date = new Date(atMs);
  return (
    <time dateTime={date.toISOString()} className={className}>
      {FORMAT.format(date)}
    </time>
  );
}
