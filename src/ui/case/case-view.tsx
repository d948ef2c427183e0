import {
  caseSentence,
  measureWords,
  missingWords,
  rateFigure,
  refusedWords,
  ruleWords,
  standWords,
  type CaseDay,
} from '@/core';
import type { CasePage } from '@/services';
import { wallTimeWords } from '../parts/wall-time';

const MOST_SQUARES = 40;

/** A day of the calendar: one square for each run that counts, hollow for those that are missing. */
function DayRow({ day, perDay }: { readonly day: CaseDay; readonly perDay: number }) {
  const missing = Math.max(0, perDay - day.runs.length);
  return (
    <li className="flex flex-wrap items-center gap-x-3 py-0.5">
      <span className="figure w-24 text-[0.8rem]">{day.day}</span>
      <span aria-hidden="true" className="flex flex-wrap gap-[3px]">
        {day.runs.slice(0, MOST_SQUARES).map(({ id }) => (
          <i key={id} className="h-3 w-2 bg-ink" style={{ printColorAdjust: 'exact' }} />
        ))}
        {Array.from({ length: Math.min(missing, MOST_SQUARES) }, (_, index) => (
          <i key={index} className="h-3 w-2 border border-quiet" />
        ))}
      </span>
      <span className={day.enough ? 'text-sm' : 'text-sm text-quiet'}>
        {day.runs.length} of {perDay}
        {day.enough ? '' : ', too few for a day of the rule'}
      </span>
    </li>
  );
}

function Counted({ page, moment }: { readonly page: CasePage; readonly moment: (atMs: number) => string }) {
  const { evidence } = page;
  if (evidence.counted.length === 0) return null;
  return (
    <details className="mt-5">
      <summary className="font-semibold">
        {evidence.counted.length} {evidence.counted.length === 1 ? 'run that counts' : 'runs that count'}
      </summary>
      <table className="mt-1 text-sm">
        <thead className="text-left text-quiet">
          <tr>
            {['when', 'device', 'down', 'up'].map((name) => (
              <th key={name} scope="col" className="pr-6 font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...evidence.counted].reverse().map(({ id, startedAtMs, downBps, upBps }) => (
            <tr key={id} className="border-t border-hairline">
              <td className="pr-6">
                <a
                  href={`/runs/${id}`}
                  className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
                >
                  {moment(startedAtMs)}
                </a>
              </td>
              <td className="max-w-60 truncate pr-6">{page.rows.get(id)?.deviceName}</td>
              <td className="figure pr-6 text-right text-[0.8rem]">{rateFigure(downBps)}</td>
              <td className="figure text-right text-[0.8rem]">{rateFigure(upBps)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

function Refused({ page, moment }: { readonly page: CasePage; readonly moment: (atMs: number) => string }) {
  const { refused } = page.evidence;
  if (refused.length === 0) return null;
  return (
    <details className="mt-3">
      <summary className="font-semibold">
        {refused.length} {refused.length === 1 ? 'run that does not, and why' : 'runs that do not, and why'}
      </summary>
      <ul className="mt-1 text-sm">
        {[...refused].reverse().map(({ run, because }) => (
          <li key={run.id} className="flex flex-wrap gap-x-4 border-t border-hairline py-0.5">
            <a
              href={`/runs/${run.id}`}
              className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
            >
              {moment(run.startedAtMs)}
            </a>
            <span>{page.rows.get(run.id)?.deviceName}</span>
            <span className="text-quiet">{refusedWords(because)}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** A case: what it comes to in one sentence, each figure of the contract, the calendar, the runs, and those refused. */
export function CaseView({ page }: { readonly page: CasePage }) {
  const { stored, site, line, evidence, answer, nowMs, otherPlan, planCorrectedAtMs } = page;
  const moment = (atMs: number) => wallTimeWords(atMs, { timeZone: site.timeZone, nowMs });
  const missing = missingWords(evidence, stored.rule);
  return (
    <article>
      <p className="text-sm text-quiet">
        {line.name}
        {line.provider !== '' && `, ${line.provider}`} · {site.name}
        {site.demo && ' · demo data'} · runs from {moment(stored.openedAtMs)}
        {stored.closedAtMs !== null && ` to ${moment(stored.closedAtMs)}, closed`} · opened by {stored.byName}
      </p>
      <p className="mt-2 max-w-[60rem] text-[1.2rem] leading-snug">{caseSentence(answer, evidence)}</p>
      {missing !== '' && <p className="mt-1">{missing}</p>}
      {otherPlan !== null && (
        <p className="mt-1 text-thin-words">
          The plan that is written down, {otherPlan.name}, names other figures than this case:{' '}
          {rateFigure(otherPlan.downBps)} down and {rateFigure(otherPlan.upBps)} up.
        </p>
      )}
      {planCorrectedAtMs !== null && (
        <p className="mt-1 text-thin-words">
          A plan of this line was corrected {moment(planCorrectedAtMs)}, after the case was opened; the record says so.
        </p>
      )}
      {answer.measures.length > 0 && (
        <ul aria-label="Figures of the contract" className="mt-4 max-w-[60rem]">
          {answer.measures.map((measure) => (
            <li
              key={`${measure.measure} ${measure.direction}`}
              className="grid grid-cols-[9rem_1fr] gap-3 border-t border-hairline py-1"
            >
              <span className={measure.fallsShort ? 'font-semibold text-starved' : 'text-quiet'}>
                {standWords(measure, answer)}
              </span>
              <span>{measureWords(measure)}</span>
            </li>
          ))}
        </ul>
      )}
      <section aria-label="Calendar" className="mt-5">
        <h2 className="font-semibold">Days</h2>
        {evidence.days.length === 0 ? (
          <p className="text-quiet">
            No run counts yet. Measure over this line by cable: each run comes here by itself.
          </p>
        ) : (
          <ul>
            {evidence.days.map((day) => (
              <DayRow key={day.day} day={day} perDay={stored.rule.perDay} />
            ))}
          </ul>
        )}
      </section>
      <section aria-label="The rule" className="mt-5 max-w-[60rem]">
        <h2 className="font-semibold">The rule</h2>
        {ruleWords(stored.rule).map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
        {stored.notes !== '' && <p className="mt-2 whitespace-pre-line">{stored.notes}</p>}
      </section>
      <Counted page={page} moment={moment} />
      <Refused page={page} moment={moment} />
    </article>
  );
}
