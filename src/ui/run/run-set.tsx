import { addedDelayWords, rateFigure, rateWords, type RunSet } from '@/core';
import type { RunPage } from '@/services';
import { WallTime } from '../parts/wall-time';
import { VerdictMark } from '../verdict/verdict-mark';
import { RunLink } from './run-link';

type SetOfRuns = NonNullable<RunPage['set']>;

interface OfRun {
  readonly runId: string;
  /** Whether the other runs can be opened from here. */
  readonly links: boolean;
}

const SPREAD_WORDS: Record<RunSet['spreadKind'], string> = {
  range: 'from least to most',
  'median-absolute-deviation': 'median deviation',
};

function spreadWords(down: RunSet | null, up: RunSet | null): string {
  if (down === null || up === null) return '';
  return ` They lie ${rateFigure(down.spread)} and ${rateFigure(up.spread)} Mb/s apart (${SPREAD_WORDS[down.spreadKind]}).`;
}

const ANSWER_WORDS = { met: 'the plan is met', 'not met': 'the plan is not met', 'cannot tell': 'they cannot tell' };

/** The runs made under the same conditions, judged as one by their median; the odd one is shown and kept. */
export function RunSetSection({ set, runId, links }: OfRun & { readonly set: SetOfRuns }) {
  const { runs, judgement } = set;
  const { count, down, up, added, verdict, planAnswer } = judgement;
  const isOdd = (index: number) => [down, up].some((figure) => figure?.odd.includes(index));
  return (
    <section aria-label="Set">
      <h2 className="mb-2 font-semibold">The set it belongs to</h2>
      <p>
        <VerdictMark verdict={verdict} /> {rateWords(down?.median ?? null)} down and {rateWords(up?.median ?? null)} up,
        median of {count} runs under the same conditions.{spreadWords(down, up)}
        {planAnswer !== null && ` As evidence about the plan: ${ANSWER_WORDS[planAnswer.word]}.`}
      </p>
      <table className="mt-2 w-full text-[0.9rem]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">run</th>
            <th className="text-right font-normal">down</th>
            <th className="text-right font-normal">up</th>
            <th className="text-right font-normal">added</th>
            <th className="font-normal">
              <span className="sr-only">odd or not</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {runs.map((run, index) => (
            <tr key={run.id} className="border-t border-hairline">
              <td className="py-1">
                {run.id === runId ? (
                  <span className="font-semibold">
                    <WallTime atMs={run.startedAtMs} />, this one
                  </span>
                ) : (
                  <RunLink id={run.id} links={links}>
                    <WallTime atMs={run.startedAtMs} />
                  </RunLink>
                )}
              </td>
              <td className="figure text-right">{rateFigure(run.downBps)}</td>
              <td className="figure text-right">{rateFigure(run.upBps)}</td>
              <td className="figure text-right text-delay">{addedDelayWords(run.addedMs)}</td>
              <td className="pl-3 text-thin-words">{isOdd(index) ? 'odd' : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {added !== null && <p className="mt-1 text-sm text-quiet">Median added delay {addedDelayWords(added.median)}.</p>}
    </section>
  );
}
