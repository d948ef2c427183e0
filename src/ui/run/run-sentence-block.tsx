import type { RunReport, RunSentence } from '@/core';
import { DelayMark } from '../verdict/delay-mark';
import { VerdictMark } from '../verdict/verdict-mark';

interface RunSentenceBlockProps {
  readonly report: RunReport;
  readonly sentence: RunSentence;
  readonly practice: boolean;
}

/** The result in words, large: figures, what they were held against, and the delay. */
export function RunSentenceBlock({ report, sentence, practice }: RunSentenceBlockProps) {
  return (
    <section aria-label="Result" className="max-w-[58rem]">
      <p className="text-[1.55rem] leading-snug">
        <span className="mr-3 inline-block align-[0.05em]">
          <VerdictMark verdict={report.verdict} /> {report.bloat !== null && <DelayMark rating={report.bloat.rating} />}
        </span>
        <span className="font-semibold">{sentence.figures}</span>{' '}
        {sentence.lead === 'delay' ? sentence.delay : sentence.held}
      </p>
      <p className="mt-1 text-[1.1rem] text-quiet">{sentence.lead === 'delay' ? sentence.held : sentence.delay}</p>
      {practice && (
        <p className="mt-1 text-sm text-quiet">
          A practice line stood in for the provider&rsquo;s line; this says nothing about a real one.
        </p>
      )}
    </section>
  );
}
