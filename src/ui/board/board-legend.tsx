import { VERDICT_WORDS } from '@/core';
import { VerdictMark } from '../verdict/verdict-mark';

/** What the marks on the board mean, in one line. */
export function BoardLegend({ fullFrom }: { readonly fullFrom: number }) {
  const meaning = {
    full: `${Math.round(fullFrom * 100)} % of the yardstick or more`,
    thin: 'less',
    starved: 'under half',
    'no verdict': 'cannot judge',
  } as const;
  return (
    <p className="flex flex-wrap gap-x-6 gap-y-1 text-[0.8rem] text-quiet">
      {VERDICT_WORDS.map((verdict) => (
        <span key={verdict} className="inline-flex items-center gap-1.5">
          <VerdictMark verdict={verdict} withWord /> {meaning[verdict]}
        </span>
      ))}
      <span>the notch on a straw is its yardstick: plan or link ceiling, whichever is lower · Mb/s · newest run</span>
    </p>
  );
}
