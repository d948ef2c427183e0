import type { VerdictWord } from '@/core';
import { VERDICT_COLOURS, VERDICT_SHAPES } from './verdict-shapes';

interface VerdictMarkProps {
  readonly verdict: VerdictWord;
  /** Whether the word stands beside the shape; otherwise it is there for screen readers. */
  readonly withWord?: boolean;
}

/** A verdict as shape and word: told apart without colour, and quiet when all is well. */
export function VerdictMark({ verdict, withWord = false }: VerdictMarkProps) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <svg viewBox="0 0 12 12" className={`size-3 shrink-0 ${VERDICT_COLOURS[verdict]}`} aria-hidden="true">
        {VERDICT_SHAPES[verdict]}
      </svg>
      <span className={withWord ? '' : 'sr-only'}>{verdict}</span>
    </span>
  );
}
