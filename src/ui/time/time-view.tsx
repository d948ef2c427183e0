'use client';

import { useState } from 'react';
import { sideFigureWords, type SideQuantity } from '@/core';
import type { ShownSubject } from '@/services';
import { Button } from '../parts/button';
import { Notice } from '../parts/notice';
import { PrintButton } from '../parts/print-button';
import { wallTimeWords } from '../parts/wall-time';
import { moved, TimeChart, zoomed, type WorkedOutSeries } from './time-chart';
import { LOWER_QUANTITIES, type LowerQuantity, type TimeSpan } from './time-messages';
import { SubjectChoice } from './subject-choice';
import { Sentences } from './time-sentences';
import { FromFile, OccasionTable, PlanShares } from './time-tables';
import { WeekMap } from './week-map';

const DAY_MS = 24 * 3600_000;
const SPANS = [
  ['day', DAY_MS],
  ['week', 7 * DAY_MS],
  ['month', 30 * DAY_MS],
  ['year', 365 * DAY_MS],
] as const;
const LOWER_NAMES: Readonly<Record<LowerQuantity, string>> = {
  addedUp: 'delay that the upload adds',
  addedDown: 'delay that the download adds',
  idle: 'idle delay',
  jitter: 'jitter',
  loss: 'loss',
};
const READ: readonly (readonly [SideQuantity, string])[] = [
  ['down', 'down'],
  ['up', 'up'],
  ['addedDown', 'download adds'],
  ['addedUp', 'upload adds'],
  ['idle', 'idle'],
];

interface TimeViewProps {
  readonly siteId: string;
  readonly siteName: string;
  readonly demo: boolean;
  readonly timeZone: string;
  readonly nowMs: number;
  readonly subjects: readonly ShownSubject[];
  readonly subject: ShownSubject;
}

/** A mark of the picture, and what it stands for. */
function Legend({
  mark,
  color,
  word,
}: {
  readonly mark: 'circle' | 'triangle';
  readonly color: string;
  readonly word: string;
}) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg viewBox="0 0 12 12" className="size-3" aria-hidden="true" fill="none" stroke={color} strokeWidth="1.8">
        {mark === 'circle' ? <circle cx="6" cy="6" r="4" /> : <path d="M6 2 10.5 10h-9z" />}
      </svg>
      {word}
    </span>
  );
}

/** What was measured at the occasion that is read, on one line. */
function Reading({
  found,
  at,
  moment,
}: {
  found: WorkedOutSeries | null;
  at: number | null;
  moment: (ms: number) => string;
}) {
  if (found === null || at === null || found.series.occasions.runId[at] === undefined)
    return (
      <p className="min-h-6 text-sm text-quiet print:hidden">
        Point at the picture to read it; drag it to move in time, + and − bring it nearer and further.
      </p>
    );
  const { occasions } = found.series;
  return (
    <p className="figure flex min-h-6 flex-wrap items-baseline gap-x-4 text-[0.78rem]">
      <a href={`/runs/${occasions.runId[at]}`} className="underline underline-offset-4">
        {moment(occasions.startedAtMs[at]!)}
      </a>
      {READ.map(([quantity, name]) => (
        <span key={quantity}>
          <span className="text-quiet">{name}</span> {sideFigureWords(quantity, occasions[quantity][at] ?? null)}
        </span>
      ))}
    </p>
  );
}

const readWords = (found: WorkedOutSeries | null, at: number | null, moment: (ms: number) => string): string => {
  if (found === null || at === null) return 'nothing is read yet';
  const { occasions } = found.series;
  return [
    moment(occasions.startedAtMs[at]!),
    ...READ.map(([quantity, name]) => `${name} ${sideFigureWords(quantity, occasions[quantity][at] ?? null)}`),
  ].join(', ');
};

/** What time shows of one line, or of one device over one link: in sentences, as a picture, by the hour, as tables. */
export function TimeView({ siteId, siteName, demo, timeZone, nowMs, subjects, subject }: TimeViewProps) {
  const [found, setFound] = useState<WorkedOutSeries | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [lower, setLower] = useState<LowerQuantity>('addedUp');
  const [mapped, setMapped] = useState<SideQuantity>('down');
  const [span, setSpan] = useState<TimeSpan | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const moment = (atMs: number) => wallTimeWords(atMs, { timeZone, nowMs });
  const whole = found?.whole ?? null;
  const shown = span ?? whole;
  const url = `/api/v1/sites/${siteId}/over-time/${encodeURIComponent(subject.key)}`;
  const isEmpty = found !== null && found.series.occasions.runId.length === 0;
  const plan = found?.series.plans.at(-1) ?? null;
  const mappedShow = found?.shows.find(({ quantity }) => quantity === mapped);
  return (
    <article aria-busy={found === null && failure === null}>
      <p className="mb-2 hidden text-sm text-quiet print:block">
        {siteName}
        {demo && ' · demo data'} · {subject.name} over time, as of {wallTimeWords(nowMs, { timeZone, nowMs: 0 })} (
        {timeZone})
      </p>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2 print:hidden">
        <SubjectChoice subjects={subjects} subject={subject} />
        <PrintButton />
      </div>
      {failure !== null && <Notice title="Nothing can be shown">{failure}</Notice>}
      <div className="mt-3 min-h-14" aria-live="polite">
        {found === null ? (
          failure === null && <p className="text-quiet">Reading what was measured …</p>
        ) : (
          <Sentences found={found} moment={moment} />
        )}
        {found !== null && found.series.unfit > 0 && (
          <p className="mt-1 text-sm text-quiet">
            {found.series.unfit} {found.series.unfit === 1 ? 'run says' : 'runs say'} nothing of the line’s rate,
            because something nearer may be the limit, and {found.series.unfit === 1 ? 'is' : 'are'} left out of it.
          </p>
        )}
        {found !== null && <FromFile occasions={found.series.occasions} />}
        {found !== null && found.series.practiceAside > 0 && (
          <p className="mt-1 text-sm text-quiet">
            {found.series.practiceAside} more through a practice line are left out.
          </p>
        )}
      </div>
      <div className={isEmpty || failure !== null ? 'hidden' : 'mt-3 break-inside-avoid'}>
        <div className="mb-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-sm">
          <Legend mark="circle" color="var(--down)" word="down" />
          <Legend mark="triangle" color="var(--up)" word="up" />
          <label>
            below:{' '}
            <select
              className="field !min-h-7 !w-auto !py-0 text-sm"
              value={lower}
              onChange={(event) => setLower(event.target.value as LowerQuantity)}
            >
              {LOWER_QUANTITIES.map((quantity) => (
                <option key={quantity} value={quantity}>
                  {LOWER_NAMES[quantity]}
                </option>
              ))}
            </select>
          </label>
          <span className="text-quiet">
            line: median of the day · shaded: what was usual · dashed:{' '}
            {subject.kind === 'line' ? 'the plan' : 'what it is held against'}
          </span>
          <span className="ml-auto flex items-baseline gap-1 print:hidden">
            {SPANS.map(([name, ms]) => (
              <Button
                key={name}
                look="quiet"
                className="!min-h-7 !px-1 text-sm"
                disabled={whole === null}
                onClick={() =>
                  whole !== null && setSpan({ fromMs: (span ?? whole).toMs - ms, toMs: (span ?? whole).toMs })
                }
              >
                {name}
              </Button>
            ))}
            <Button
              look="quiet"
              className="!min-h-7 !px-1 text-sm"
              disabled={whole === null}
              onClick={() => setSpan(null)}
            >
              all
            </Button>
            {(
              [
                ['Earlier', '‹', (of: TimeSpan) => moved(of, -0.5)],
                ['Later', '›', (of: TimeSpan) => moved(of, 0.5)],
                ['Further', '−', (of: TimeSpan) => zoomed(of, 1.5)],
                ['Nearer', '+', (of: TimeSpan) => zoomed(of, 1 / 1.5)],
              ] as const
            ).map(([name, sign, change]) => (
              <Button
                key={name}
                aria-label={name}
                className="!min-h-7 !px-2 text-sm"
                disabled={shown === null}
                onClick={() => shown !== null && setSpan(change(shown))}
              >
                {sign}
              </Button>
            ))}
          </span>
        </div>
        <TimeChart
          key={subject.key}
          url={url}
          timeZone={timeZone}
          lower={lower}
          span={span}
          onSpan={setSpan}
          onWorkedOut={setFound}
          onFailed={setFailure}
          at={at}
          onAt={setAt}
          label={`${subject.name} over time`}
          valueText={readWords(found, at, moment)}
        />
        <Reading found={found} at={at} moment={moment} />
        {found !== null && found.series.flags.length > 0 && (
          <ol aria-label="Flags" className="mt-2 flex flex-wrap gap-x-6 text-sm">
            {found.series.flags.map(({ atMs, words }, index) => (
              <li key={`${atMs} ${words}`}>
                <span className="figure mr-1 bg-ink px-1 text-[0.65rem] text-paper">{index + 1}</span>
                {words} <span className="text-quiet">{moment(atMs)}</span>
              </li>
            ))}
          </ol>
        )}
      </div>
      {found !== null && !isEmpty && (
        <>
          {found.series.plan !== null && <PlanShares plan={found.series.plan} moment={moment} />}
          {mappedShow !== undefined && (
            <section aria-label="Hours of the week" className="mt-6 break-inside-avoid">
              <h2 className="flex flex-wrap items-baseline gap-x-2 font-semibold">
                Hours of the week:
                <select
                  aria-label="what the hours show"
                  className="field !min-h-7 !w-auto !py-0 text-sm font-normal"
                  value={mapped}
                  onChange={(event) => setMapped(event.target.value as SideQuantity)}
                >
                  {READ.map(([quantity, name]) => (
                    <option key={quantity} value={quantity}>
                      {name}
                    </option>
                  ))}
                </select>
              </h2>
              <p className="mb-1.5 text-sm text-quiet">
                Each hour is filled as far as its median goes
                {mapped === 'down' || mapped === 'up'
                  ? plan === null
                    ? ', against the best hour.'
                    : ', against the plan.'
                  : ', against the worst hour.'}
              </p>
              <WeekMap
                quantity={mapped}
                hours={mappedShow.weekHours}
                planBps={mapped === 'down' ? (plan?.downBps ?? null) : mapped === 'up' ? (plan?.upBps ?? null) : null}
              />
            </section>
          )}
          <OccasionTable series={found.series} moment={moment} />
        </>
      )}
    </article>
  );
}
