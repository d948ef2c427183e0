import { STRENGTH_WORDS, type Strength } from '@/core';

/** How far the straw of the mark is filled, 0 to 1: a fact is whole, a hint is hardly there. */
const FILLED: Readonly<Record<Strength, number>> = { fact: 1, found: 1, likely: 0.6, hint: 0.2 };
const LENGTH = 22;

/** How sure a finding is: a short length of straw, as full as it is sure, and the word. */
export function StrengthMark({ strength }: { readonly strength: Strength }) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap text-[0.78rem] text-quiet">
      <svg viewBox={`0 0 ${LENGTH + 2} 8`} className="h-2 w-6" aria-hidden="true">
        <path d={`M1 1.5H${LENGTH + 1}M1 6.5H${LENGTH + 1}`} stroke="var(--quiet)" strokeWidth="1" />
        <path d={`M1 4H${1 + LENGTH * FILLED[strength]}`} stroke="var(--ink)" strokeWidth="3.4" />
      </svg>
      {STRENGTH_WORDS[strength]}
    </span>
  );
}
