import { FULL_SET, linkKindWords, troubleWords, yardstickBps, type LinkKind } from '@/core';
import type { RunPage } from '@/services';
import { Notice } from '../parts/notice';
import { WallTime } from '../parts/wall-time';
import { StrawPath } from '../straw/straw-path';
import { Strip } from '../strip/strip';
import { StripTable } from '../strip/strip-table';
import { FollowChanges } from '../board/follow-changes';
import type { FormAction } from '../form/form-state';
import { StripReader } from '../strip/strip-reader';
import { ImportedFigures, ImportedNotice } from './imported-figures';
import { RunConditionsList } from './run-conditions-list';
import { RunCopyTime } from './run-copy-time';
import { RunFigures } from './run-figures';
import { RunFitness } from './run-fitness';
import { RunNeighbours } from './run-neighbours';
import { RunNotes } from './run-notes';
import { RunSentenceBlock } from './run-sentence-block';
import { RunSetSection } from './run-set';
import { RunSharing } from './run-sharing';
import { RunTogether } from './run-together';
import { RunSuitability } from './run-suitability';
import { YardstickArithmetic } from './yardstick-arithmetic';

/** What only the technician does with a run; absent for the device that made it and for whoever has its link. */
export interface RunActions {
  readonly saveNotes: FormAction;
  /** An address of this console that other machines reach. */
  readonly reachableOrigin: string;
  readonly share: () => Promise<void>;
  readonly stopSharing: () => Promise<void>;
}

interface RunViewProps {
  readonly page: RunPage;
  readonly actions: RunActions | null;
  /** Read by its link alone: nothing on it leads elsewhere. */
  readonly shared?: boolean;
}

const STRIP = { width: 1200, height: 320 } as const;

/** Everything about one run: the sentence first, then the pictures, then how it was judged and what it rests on. */
export function RunView({ page, actions, shared = false }: RunViewProps) {
  const { run, straw, strip, result, unfinished, measuredBefore, set, together, neighbours } = page;
  const report = result?.report ?? null;
  const inFullSet = (set?.judgement.count ?? 0) >= FULL_SET;
  const yardsticks = {
    downBps: report === null ? null : yardstickBps(report.down.yardstick),
    upBps: report === null ? null : yardstickBps(report.up.yardstick),
  };
  return (
    <article>
      <header className="mb-4 flex flex-wrap items-baseline gap-x-4 text-quiet">
        <h1 className="max-w-[40rem] break-words text-xl font-semibold text-ink">{run.deviceName}</h1>
        <span>
          {linkKindWords(run.linkKind as LinkKind)} · {run.reach}
          {run.peerName !== '' && ` · against ${run.peerName}`}
        </span>
        <WallTime atMs={run.startedAtMs} className="ml-auto" />
        {actions !== null && <RunNeighbours {...neighbours} />}
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
      {page.imported !== null && <ImportedNotice {...page.imported} />}
      {result !== null && (
        <RunSentenceBlock report={result.report} sentence={result.sentence} practice={run.practice} />
      )}
      {page.imported === null && (
        <div className="mt-6">
          <StrawPath
            segments={straw}
            flowBps={report?.down.rate?.steadyBps ?? null}
            title={`The path of this run from ${run.deviceName} to ${run.peerName}`}
          />
        </div>
      )}
      {report !== null && <YardstickArithmetic down={report.down.yardstick} up={report.up.yardstick} />}
      {strip !== null && (
        <section className="mt-6" aria-label="Strip">
          <StripReader data={strip} yardsticks={yardsticks} {...STRIP}>
            <Strip data={strip} yardsticks={yardsticks} {...STRIP} />
          </StripReader>
          <div className="print:hidden">
            <StripTable data={strip} />
          </div>
        </section>
      )}
      <div className="mt-8 grid gap-x-12 print:mt-3 print:block print:columns-2 gap-y-8 lg:grid-cols-[1.25fr_1fr]">
        <div className="space-y-8">
          {page.imported !== null && <ImportedFigures run={run} />}
          {report !== null && <RunFigures report={report} />}
          {report !== null && <RunSuitability report={report} />}
          {report !== null && <RunFitness report={report} inFullSet={inFullSet} />}
        </div>
        <div className="space-y-8">
          {set !== null && <RunSetSection set={set} runId={run.id} links={!shared} />}
          {together.runs.length > 1 && <RunTogether together={together} run={run} links={!shared} />}
          {report !== null && <RunCopyTime rates={page.ratesOfMonth} />}
          {page.troubles.length > 0 && (
            <section aria-label="Trouble">
              <h2 className="mb-2 font-semibold">What the device could not do</h2>
              <ul className="list-disc space-y-1 pl-5 text-[0.9rem]">
                {page.troubles.map((trouble) => (
                  <li key={trouble.code + trouble.detail} className="break-words">
                    {troubleWords(trouble).replace(/^./, (letter) => letter.toUpperCase())}.
                  </li>
                ))}
              </ul>
            </section>
          )}
          <RunConditionsList run={run} hasSamples={strip !== null} offersSamples={!shared} />
          {actions === null && run.notes !== '' && (
            <section aria-label="Notes">
              <h2 className="mb-2 font-semibold">Notes</h2>
              <p className="whitespace-pre-line break-words">{run.notes}</p>
            </section>
          )}
          {actions !== null && <RunNotes notes={run.notes} save={actions.saveNotes} />}
          {actions !== null && (
            <RunSharing
              path={page.sharePath}
              reachableOrigin={actions.reachableOrigin}
              share={actions.share}
              stop={actions.stopSharing}
            />
          )}
        </div>
      </div>
    </article>
  );
}
