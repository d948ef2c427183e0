import { addedDelayWords, agoWords, nominalRateFigure, rateFigure, VERDICT_WORDS, type Plan } from '@/core';
import type { SiteSummary, SiteTunnel, WeekOfRuns } from '@/services';
import { StrawBar } from '../straw/straw-bar';
import { StrawPath } from '../straw/straw-path';
import { VerdictMark } from '../verdict/verdict-mark';

function planWords(plan: Plan): string {
  return `${nominalRateFigure(plan.downBps)} down, ${nominalRateFigure(plan.upBps)} up`;
}

interface WeekProps {
  readonly title: string;
  readonly against: string;
  readonly week: WeekOfRuns;
  readonly nowMs: number;
}

/** A week of runs in one line: two straws, delay and verdict by the medians, how many runs. */
function Week({ title, against, week, nowMs }: WeekProps) {
  const { newest } = week;
  const rates = [
    ['down', week.downBps, week.yardstickDownBps],
    ['up', week.upBps, week.yardstickUpBps],
  ] as const;
  return (
    <div className="min-w-0">
      <h3 className="text-sm text-quiet">{title}</h3>
      {newest === null ? (
        <p className="mt-1 text-sm">No run in the last seven days.</p>
      ) : (
        <>
          <div className="mt-1 grid grid-cols-[minmax(4rem,1fr)_3.4rem] items-center gap-x-3 gap-y-1">
            {rates.map(([direction, rateBps, yardstickBps]) => (
              <div key={direction} className="contents">
                <StrawBar direction={direction} rateBps={rateBps} yardstickBps={yardstickBps} />
                <span className="figure text-right text-[0.8rem]">
                  <span className="sr-only">{direction} </span>
                  {rateFigure(rateBps)}
                </span>
              </div>
            ))}
          </div>
          <p className="mt-1 flex flex-wrap items-center gap-x-2 text-[0.8rem] text-quiet">
            <VerdictMark verdict={week.verdict} withWord />
            {week.addedMs !== null && (
              <span>
                <span className="figure text-[0.72rem] text-delay">{addedDelayWords(week.addedMs)}</span> {week.rating}
              </span>
            )}
            <span>
              {week.count} {week.count === 1 ? 'run' : 'runs'}, the newest {agoWords(nowMs - newest.startedAtMs)}
            </span>
          </p>
        </>
      )}
      <p className="text-[0.8rem] text-quiet">{against}</p>
    </div>
  );
}

/** How many of the devices' links inside the office are full, thin or starved. */
function Inside({ inside }: Pick<SiteSummary, 'inside'>) {
  const known = VERDICT_WORDS.filter((word) => inside[word] > 0);
  return (
    <div className="min-w-0">
      <h3 className="text-sm text-quiet">inside the office, each device against its own link</h3>
      {known.length === 0 && <p className="mt-1 text-sm">Nothing was measured inside yet.</p>}
      <ul className="mt-1 space-y-0.5 text-[0.9rem]">
        {known.map((word) => (
          <li key={word} className="flex items-center gap-2">
            <span className="figure w-6 text-right text-[0.8rem]">{inside[word]}</span>
            <VerdictMark verdict={word} withWord />
          </li>
        ))}
      </ul>
    </div>
  );
}

function tunnelAgainst({ slowerEnd, farSiteName }: SiteTunnel): string {
  if (slowerEnd !== null)
    return `to ${farSiteName ?? 'the other office'}: the slower end gives ${planWords(slowerEnd)}`;
  return farSiteName === null
    ? 'say in the set-up which office is at its other end'
    : 'a plan is missing at one of its ends';
}

interface SiteBesideProps {
  readonly summary: SiteSummary;
  readonly nowMs: number;
  readonly open: () => Promise<void>;
}

/** One office beside the others. */
export function SiteBeside({ summary, nowMs, open }: SiteBesideProps) {
  const { site, lineName, plan, straw, internet, inside, tunnels, deviceCount, standingCount } = summary;
  return (
    <li className="border-t-[1.5px] border-ink py-4">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="min-w-0 break-words font-semibold">{site.name}</h2>
        <span className="text-sm text-quiet">
          {deviceCount} {deviceCount === 1 ? 'device' : 'devices'}, {standingCount} standing by
        </span>
        <form action={open} className="ml-auto">
          <button type="submit" className="underline decoration-hairline underline-offset-4 hover:decoration-ink">
            Open its board
          </button>
        </form>
      </div>
      <StrawPath
        segments={straw}
        flowBps={internet.downBps}
        title={`The path from the devices of ${site.name} to the outside peer`}
      />
      <div className="mt-2 grid gap-x-10 gap-y-4 md:grid-cols-2 xl:grid-cols-3">
        <Week
          title={`over ${lineName ?? 'the line'}`}
          against={plan === null ? 'no plan is entered for its line' : `the plan is ${planWords(plan)}`}
          week={internet}
          nowMs={nowMs}
        />
        <Inside inside={inside} />
        {tunnels.map((tunnel) => (
          <Week
            key={tunnel.peerName}
            title={`through the tunnel, against ${tunnel.peerName}`}
            against={tunnelAgainst(tunnel)}
            week={tunnel}
            nowMs={nowMs}
          />
        ))}
      </div>
    </li>
  );
}
