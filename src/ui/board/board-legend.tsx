import { VERDICT_WORDS } from '@/core';
import { Term } from '../parts/term';
import { VerdictMark } from '../verdict/verdict-mark';

/** What the marks on the board mean, in one line. */
export function BoardLegend({ fullFrom }: { readonly fullFrom: number }) {
  const meaning = {
    full: `from ${Math.round(fullFrom * 100)} % of the yardstick`,
    capped: 'all that its own link can carry, less than is paid for',
    thin: 'from half of it',
    starved: 'below',
    'no verdict': 'cannot judge',
  } as const;
  return (
    <p className="flex flex-wrap gap-x-6 gap-y-1 text-[0.8rem] text-quiet">
      {VERDICT_WORDS.map((verdict) => (
        <span key={verdict} className="inline-flex items-center gap-1.5">
          <VerdictMark verdict={verdict} />
          <Term word={verdict} /> {meaning[verdict]}
        </span>
      ))}
      <span>
        medians of the newest set: Mb/s, and ms that load adds to the delay; the notch is the <Term word="yardstick" />
      </span>
    </p>
  );
}
