import { sideFigureWords, shareOfPlan, type SideQuantity, type WeekHour } from '@/core';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const HOURS = Array.from({ length: 24 }, (_, hour) => hour);

interface WeekMapProps {
  readonly quantity: SideQuantity;
  readonly hours: readonly WeekHour[];
  /** What the rate is held against, bits per second; null: only against the other hours. */
  readonly planBps: number | null;
}

/** How full a cell is drawn: a rate as a share of what is promised or of the best hour, a delay of the worst. */
function fillOf({ quantity, hours, planBps }: WeekMapProps): (median: number) => number {
  const most = Math.max(1e-9, ...hours.map(({ median }) => median));
  const whole = (quantity === 'down' || quantity === 'up') && planBps !== null ? planBps : most;
  return (median) => Math.max(0.04, Math.min(1, median / whole));
}

/** The hours of the week: each a straw standing up, filled as far as that hour usually gives. */
export function WeekMap(props: WeekMapProps) {
  const { quantity, hours, planBps } = props;
  const fill = fillOf(props);
  const at = new Map(hours.map((each) => [each.weekday * 24 + each.hour, each]));
  const color = quantity === 'down' ? 'var(--down)' : quantity === 'up' ? 'var(--up)' : 'var(--delay)';
  return (
    <table className="w-full max-w-[46rem] table-fixed border-collapse text-xs">
      <caption className="sr-only">Median by hour and day of the week</caption>
      <thead>
        <tr>
          <th className="w-9" />
          {HOURS.map((hour) => (
            <th key={hour} scope="col" className="figure pb-0.5 text-left text-[0.65rem] font-normal text-quiet">
              {hour % 3 === 0 ? <span aria-hidden="true">{hour}</span> : null}
              <span className="sr-only">{hour}:00</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {DAYS.map((day, weekday) => (
          <tr key={day}>
            <th scope="row" className="pr-2 text-right font-normal text-quiet">
              {day}
            </th>
            {HOURS.map((hour) => {
              const known = at.get(weekday * 24 + hour);
              if (known === undefined)
                return (
                  <td key={hour} className="h-6 px-px">
                    <i aria-hidden="true" className="mx-auto block h-px w-1.5 bg-hairline" />
                  </td>
                );
              const { median, occasions } = known;
              const share = planBps === null ? '' : ` (${shareOfPlan(median, planBps)} of the plan)`;
              const words = `${day} ${hour}:00: ${sideFigureWords(quantity, median)}${share}, ${occasions} ${occasions === 1 ? 'occasion' : 'occasions'}`;
              return (
                <td key={hour} className="h-6 px-px" title={words}>
                  <span
                    className="mx-auto flex h-[1.35rem] w-[9px] items-end border"
                    style={{ borderColor: color, printColorAdjust: 'exact' }}
                  >
                    <i className="block w-full" style={{ height: `${100 * fill(median)}%`, background: color }} />
                  </span>
                  <span className="sr-only">{words}</span>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
