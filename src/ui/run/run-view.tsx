import { linkKindWords, yardstickBps, type LinkKind } from '@/core';
import type { RunPage } from '@/services';
import { Notice } from '../parts/notice';
import { WallTime } from '../parts/wall-time';
import { StrawPath } from '../straw/straw-path';
import { Strip } from '../strip/strip';
import { StripTable } from '../strip/strip-table';
import { FollowChanges } from '../board/follow-changes';
import { RunConditionsList } from './run-conditions-list';
import { RunFigures } from './run-figures';
import { RunFitness } from './run-fitness';
import { RunSentenceBlock } from './run-sentence-block';
import { RunSetSection, RunTogether } from './run-set';
import { RunSuitability } from './run-suitability';
import { YardstickArithmetic } from './yardstick-arithmetic';

/** Everything about one run: the sentence first, then the pictures, then how it was judged and what it rests on. */
export function RunView({
  page: { run, straw, strip, result, unfinished, measuredBefore, set, together },
}: {
  readonly page: RunPage;
}) {
  const report = result?.report ?? null;
  return (
    <article>
      <header className="mb-4 flex flex-wrap items-baseline gap-x-4 text-quiet">
        <h1 className="max-w-[40rem] break-words text-xl font-semibold text-ink">{run.deviceName}</h1>
        <span>
          {linkKindWords(run.linkKind as LinkKind)} · {run.reach} · against {run.peerName}
        </span>
        <WallTime atMs={run.startedAtMs} className="ml-auto" />
      </header>
      {run.status === 'running' && (
        <>
          <FollowChanges />
          <Notice title="This run is going on">
            <p>The device is measuring. The result appears here when it hands it in.</p>
          </Notice>
        </>
      )}
      {unfinished !== null && (
        <Notice title="This run was not finished, so it has no figures">
          <p>{unfinished}</p>
          {measuredBefore !== null && (
            <p className="mt-2 text-quiet">Measured before it broke off, and no result: {measuredBefore}</p>
          )}
        </Notice>
      )}
      {result !== null && (
        <RunSentenceBlock report={result.report} sentence={result.sentence} practice={run.practice} />
      )}
      <div className="mt-6">
        <StrawPath
          segments={straw}
          flowBps={report?.down.rate?.steadyBps ?? null}
          title={`The path of this run from ${run.deviceName} to ${run.peerName}`}
        />
      </div>
      {report !== null && <YardstickArithmetic down={report.down.yardstick} up={report.up.yardstick} />}
      {strip !== null && (
        <section className="mt-6" aria-label="Strip">
          <div className="border border-hairline">
            <Strip
              data={strip}
              yardsticks={{
                downBps: report === null ? null : yardstickBps(report.down.yardstick),
                upBps: report === null ? null : yardstickBps(report.up.yardstick),
              }}
              width={1200}
              height={320}
            />
          </div>
          <StripTable data={strip} />
        </section>
      )}
      <div className="mt-8 grid gap-x-12 gap-y-8 lg:grid-cols-[1.25fr_1fr]">
        {report !== null && <RunFigures report={report} />}
        <div className="space-y-8">
          {set !== null && <RunSetSection set={set} runId={run.id} />}
          {together.length > 1 && <RunTogether runs={together} runId={run.id} />}
          {report !== null && <RunSuitability report={report} />}
          {report !== null && <RunFitness report={report} />}
          <RunConditionsList run={run} hasSamples={strip !== null} />
        </div>
      </div>
    </article>
  );
}
