import { planOverTimeWords, sideFigureWords, type PlanOverTime, type SideQuantity } from '@/core';
import type { TimeSeries } from '@/services';

const MOST_ROWS = 500;
const COLUMNS: readonly (readonly [SideQuantity, string])[] = [
  ['down', 'down'],
  ['up', 'up'],
  ['idle', 'idle'],
  ['addedDown', 'download adds'],
  ['addedUp', 'upload adds'],
  ['jitter', 'jitter'],
  ['loss', 'loss'],
];

type Moment = (atMs: number) => string;

/** That some of it was measured by something else, if so. */
export function FromFile({ occasions }: Pick<TimeSeries, 'occasions'>) {
  const many = occasions.fromFile.filter(Boolean).length;
  if (many === 0) return null;
  return (
    <p className="mt-1 text-sm text-quiet">
      {many} of {occasions.runId.length} occasions come from a file: how they were measured is not known here.
    </p>
  );
}

/** The occasions behind the picture, the newest first, each with the run that is opened for it. */
export function OccasionTable({ series, moment }: { readonly series: TimeSeries; readonly moment: Moment }) {
  const { occasions } = series;
  const places = occasions.runId.map((_, place) => place).reverse();
  return (
    <details className="mt-6">
      <summary className="font-semibold">The occasions as a table</summary>
      <div className="mt-2 overflow-x-auto">
        <table className="w-full text-sm">
          <thead className="text-left text-quiet">
            <tr>
              <th scope="col" className="pr-4 font-normal">
                when
              </th>
              <th scope="col" className="pr-4 text-right font-normal">
                runs
              </th>
              {COLUMNS.map(([quantity, name]) => (
                <th key={quantity} scope="col" className="pr-4 text-right font-normal">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {places.slice(0, MOST_ROWS).map((place) => (
              <tr key={occasions.runId[place]} className="border-t border-hairline">
                <td className="whitespace-nowrap pr-4">
                  <a
                    href={`/runs/${occasions.runId[place]}`}
                    className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
                  >
                    {moment(occasions.startedAtMs[place]!)}
                  </a>
                  {occasions.fromFile[place] && <span className="text-quiet"> from a file</span>}
                </td>
                <td className="figure pr-4 text-right">{occasions.runs[place]}</td>
                {COLUMNS.map(([quantity]) => (
                  <td key={quantity} className="figure whitespace-nowrap pr-4 text-right text-[0.8rem]">
                    {occasions[quantity][place] === null ? (
                      <span className="text-quiet">–</span>
                    ) : (
                      sideFigureWords(quantity, occasions[quantity][place]!)
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {places.length > MOST_ROWS && (
        <p className="mt-1 text-sm text-quiet">
          The newest {MOST_ROWS} of {places.length}. All of them are in the ledger, and come out of it as a file.
        </p>
      )}
    </details>
  );
}

const barOf = ({ met, notMet }: { readonly met: number; readonly notMet: number }) => (100 * met) / (met + notMet);

/** How often the plan was met: in sentences, by hour, and by day. */
export function PlanShares({ plan, moment }: { readonly plan: PlanOverTime; readonly moment: Moment }) {
  return (
    <section aria-label="The plan over time" className="mt-6">
      <h2 className="font-semibold">The plan over time</h2>
      {planOverTimeWords(plan, moment).map((sentence) => (
        <p key={sentence} className="max-w-[60rem]">
          {sentence}
        </p>
      ))}
      {plan.hours.length > 0 && (
        <table className="mt-2 w-full max-w-[46rem] table-fixed text-xs">
          <caption className="pb-1 text-left text-sm text-quiet">Runs that met the plan, by hour of the day</caption>
          <tbody>
            <tr className="align-bottom">
              {plan.hours.map((hour) => (
                <td key={hour.hour} className="px-px">
                  <span
                    className="mx-auto flex h-10 w-[9px] items-end border border-ink"
                    style={{ printColorAdjust: 'exact' }}
                  >
                    <i className="block w-full bg-ink" style={{ height: `${barOf(hour)}%` }} />
                  </span>
                </td>
              ))}
            </tr>
            <tr>
              {plan.hours.map(({ hour, met, notMet }) => (
                <td key={hour} className="figure text-center text-[0.62rem] leading-tight text-quiet">
                  {String(hour).padStart(2, '0')}
                  <span className="block max-sm:sr-only">
                    {met}/{met + notMet}
                  </span>
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      )}
      {plan.days.length > 0 && (
        <details className="mt-2">
          <summary className="text-sm">By day</summary>
          <table className="mt-1 text-sm">
            <thead className="text-left text-quiet">
              <tr>
                <th scope="col" className="pr-6 font-normal">
                  day
                </th>
                <th scope="col" className="pr-6 text-right font-normal">
                  met
                </th>
                <th scope="col" className="text-right font-normal">
                  not met
                </th>
              </tr>
            </thead>
            <tbody>
              {[...plan.days].reverse().map(({ day, met, notMet }) => (
                <tr key={day} className="border-t border-hairline">
                  <td className="figure pr-6 text-[0.8rem]">{day}</td>
                  <td className="figure pr-6 text-right text-[0.8rem]">{met}</td>
                  <td className="figure text-right text-[0.8rem]">{notMet}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
    </section>
  );
}
