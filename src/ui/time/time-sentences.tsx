import { lineLoads, nothingOverTime, timeSentences, type OverTime } from '@/core';
import type { WorkedOutSeries } from './time-chart';
import type { Shown } from './time-messages';

const asOverTime = (shown: Shown): OverTime & { readonly last: number | null } => ({
  ...shown,
  bands: [shown.lastBand],
});

/** What stands out over time in sentences, or that nothing does. */
export function Sentences({
  found,
  moment,
}: {
  readonly found: WorkedOutSeries;
  readonly moment: (ms: number) => string;
}) {
  const shows = found.shows.map(asOverTime);
  const { flags, hourLoads, plans } = found.series;
  const sentences = timeSentences(shows, flags, moment, lineLoads(hourLoads, plans.at(-1)));
  if (sentences.length === 0)
    return <p className="text-[1.1rem]">{nothingOverTime(shows, found.series.occasions.runId.length)}</p>;
  const [first, ...more] = sentences;
  return (
    <>
      <p className="max-w-[60rem] text-[1.1rem] leading-snug">{first}</p>
      {more.map((sentence) => (
        <p key={sentence} className="mt-1 max-w-[60rem]">
          {sentence}
        </p>
      ))}
    </>
  );
}
