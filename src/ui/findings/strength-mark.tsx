import { STRENGTH_WORDS, type Strength } from '@/core';

/** How much of the mark is filled: a fact is whole, a hint is hardly there. */
const FILLED: Readonly<Record<Strength, number>> = { fact: 4, found: 4, likely: 3, hint: 1 };

/** How sure a finding is: four short strokes, as many of them ink as it is sure, and the word. */
export function StrengthMark({ strength }: { readonly strength: Strength }) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap text-[0.78rem] text-quiet">
      <svg viewBox="0 0 16 12" className="h-3 w-4" aria-hidden="true">
        {[0, 1, 2, 3].map((place) => (
          <path
            key={place}
            d={`M${2 + place * 4} 10.5V${8 - place * 2}`}
            strokeWidth="2.2"
            stroke={place < FILLED[strength] ? 'var(--ink)' : 'var(--hairline)'}
          />
        ))}
      </svg>
      {STRENGTH_WORDS[strength]}
    </span>
  );
}
