const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const DAY_MINUTES = 24 * 60;
const [LEFT, WIDTH, ROW, TOP] = [34, 480, 13, 4];
const HOURS = [0, 6, 12, 18, 24] as const;
const x = (minute: number) => LEFT + (minute / DAY_MINUTES) * WIDTH;

interface WeekOfTimesProps {
  /** Monday is 0. */
  readonly days: readonly number[];
  /** Minutes since midnight. */
  readonly minutes: readonly number[];
  readonly label: string;
}

/** A week of a schedule: a tick for each time. */
export function WeekOfTimes({ days, minutes, label }: WeekOfTimesProps) {
  const height = TOP + DAYS.length * ROW + 14;
  return (
    <svg viewBox={`0 0 ${LEFT + WIDTH + 12} ${height}`} className="w-full max-w-[34rem]" role="img" aria-label={label}>
      {DAYS.map((name, day) => {
        const y = TOP + day * ROW + ROW / 2;
        const isOn = days.includes(day);
        return (
          <g key={name}>
            <text x={0} y={y + 3.5} className={`text-[9.5px] ${isOn ? 'fill-ink' : 'fill-quiet'}`}>
              {name}
            </text>
            <line x1={x(0)} x2={x(DAY_MINUTES)} y1={y} y2={y} className="stroke-hairline" strokeWidth={1} />
            {isOn &&
              minutes.map((minute) => (
                <line
                  key={minute}
                  x1={x(minute)}
                  x2={x(minute)}
                  y1={y - 4}
                  y2={y + 4}
                  className="stroke-down"
                  strokeWidth={1.4}
                />
              ))}
          </g>
        );
      })}
      {HOURS.map((hour) => (
        <text
          key={hour}
          x={x(hour * 60)}
          y={height - 3}
          textAnchor={hour === 0 ? 'start' : hour === 24 ? 'end' : 'middle'}
          className="figure fill-quiet text-[8.5px]"
        >
          {hour}
        </text>
      ))}
    </svg>
  );
}
