import { addedDelayWords, delayWords, rateWords, shareWords, UNKNOWN_WORDS } from '@/core';
import type { RunPage } from '@/services';
import { Notice } from '../parts/notice';
import { WallTime } from '../parts/wall-time';

type Run = RunPage['run'];

/** A run that was not measured here: where its figures came from. */
export function ImportedNotice({ fileName, byName, madeAtMs }: NonNullable<RunPage['imported']>) {
  return (
    <Notice title="Not measured here">
      <p>
        These figures were brought in from {fileName} by {byName}, <WallTime atMs={madeAtMs} />. There are no samples,
        so nothing shows how they were made: they can be compared and looked at over time, and judge nothing.
      </p>
    </Notice>
  );
}

/** The figures that a file gave. */
export function ImportedFigures({ run }: { readonly run: Run }) {
  const { brief } = run;
  const added = (ms: number | null | undefined) =>
    ms === null || ms === undefined ? UNKNOWN_WORDS : addedDelayWords(ms);
  const rows: readonly (readonly [string, string])[] = [
    ['down', rateWords(run.downBps)],
    ['up', rateWords(run.upBps)],
    ['idle', delayWords(run.idleMs)],
    ['jitter', delayWords(brief?.jitterMs ?? null)],
    ['added by a download', added(brief?.addedDownMs)],
    ['added by an upload', added(brief?.addedUpMs)],
    ['added at worst', added(run.addedMs)],
    ['loss', brief?.lossShare === null || brief?.lossShare === undefined ? UNKNOWN_WORDS : shareWords(brief.lossShare)],
  ];
  return (
    <section aria-label="Figures">
      <h2 className="mb-2 font-semibold">Figures</h2>
      <dl className="max-w-[30rem]">
        {rows.map(([name, value]) => (
          <div key={name} className="flex justify-between border-b border-hairline py-1">
            <dt className="text-quiet">{name}</dt>
            <dd className={value === UNKNOWN_WORDS ? 'text-quiet' : 'figure'}>{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
