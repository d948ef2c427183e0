import { addedDelayWords, planPayloadBps, rateFigure, rateWords, shareWords, type SharedDirection } from '@/core';
import type { RunPage } from '@/services';
import { RunLink } from './run-link';

interface RunTogetherProps {
  readonly together: RunPage['together'];
  readonly run: RunPage['run'];
  readonly links: boolean;
}

/** "495 of 500 Mb/s": the sum of a direction, against the line where a plan is known. */
function sumWords(shared: SharedDirection, planBps: number | null): string {
  if (planBps === null) return rateWords(shared.sumBps);
  return `${rateFigure(shared.sumBps)} of ${rateWords(planBps)}`;
}

const FAIR_FROM = 0.95;

function fairnessWords({ fairness }: SharedDirection): string {
  return `${fairness >= FAIR_FROM ? 'shared evenly' : 'shared unevenly'} (${fairness.toFixed(2)} by Jain’s index, 1 is even)`;
}

/** Runs that began at the same instant: what each got, the sum against the line, how even that was, and the delay. */
export function RunTogether({ together: { runs, share }, run, links }: RunTogetherProps) {
  const planOf = (way: 'down' | 'up') =>
    run.plan === null || run.reach === 'local' ? null : planPayloadBps(run.plan, way);
  const shareOf = (direction: SharedDirection | null, index: number) =>
    direction === null ? '–' : shareWords(direction.eachBps[index]! / direction.sumBps);
  return (
    <section aria-label="Together">
      <h2 className="mb-2 font-semibold">Measured together</h2>
      <p className="text-quiet">
        {runs.length} runs began at the same instant, on purpose: each figure is a share of what there was, so none of
        them is judged alone.
      </p>
      {share === null || (share.down === null && share.up === null) ? (
        <p className="mt-2">There is no sum: not all of them pulled at the same time for a second.</p>
      ) : (
        <ul className="mt-2 space-y-1">
          {(['down', 'up'] as const).map((way) => {
            const direction = share[way];
            if (direction === null) return <li key={way}>No sum {way}: they did not pull at the same time.</li>;
            return (
              <li key={way}>
                <strong className="font-semibold">
                  {sumWords(direction, planOf(way))} {way}
                </strong>{' '}
                in all, {fairnessWords(direction)}, over {(direction.overMs / 1000).toFixed(1)} s in which all pulled.
              </li>
            );
          })}
          {share.addedMs !== null && <li>All of them saw {addedDelayWords(share.addedMs)} of delay under load.</li>}
        </ul>
      )}
      <table className="mt-3 w-full text-[0.9rem]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">device</th>
            <th className="text-right font-normal">down</th>
            <th className="text-right font-normal">share</th>
            <th className="text-right font-normal">up</th>
            <th className="text-right font-normal">share</th>
            <th className="text-right font-normal">added</th>
          </tr>
        </thead>
        <tbody>
          {runs.map((one, index) => (
            <tr key={one.id} className={`border-t border-hairline ${one.id === run.id ? 'font-semibold' : ''}`}>
              <td className="break-words py-1">
                <RunLink id={one.id} links={links}>
                  {one.deviceName}
                </RunLink>
              </td>
              <td className="figure text-right">{rateFigure(one.downBps)}</td>
              <td className="figure text-right">{shareOf(share?.down ?? null, index)}</td>
              <td className="figure text-right">{rateFigure(one.upBps)}</td>
              <td className="figure text-right">{shareOf(share?.up ?? null, index)}</td>
              <td className="figure text-right text-delay">{addedDelayWords(one.addedMs)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
