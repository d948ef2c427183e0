import type { BloatRating } from '@/core';

/** What a deep queue looks like: a ripple that rises. Nothing is drawn while delay hardly grows. */
export const RIPPLE = 'M0.8 8.6C2 5.4 3.2 5.4 4.3 7.6S6.7 9.8 7.6 6.2 10 1.6 11.2 2.4';

export const RIPPLE_COLOURS: Partial<Record<BloatRating, string>> = {
  soft: 'text-thin',
  soggy: 'text-starved',
  collapsed: 'text-starved',
};

interface DelayMarkProps {
  readonly rating: BloatRating;
  readonly withWord?: boolean;
}

/** The delay's own mark beside the verdict's: none while crisp or firm. */
export function DelayMark({ rating, withWord = false }: DelayMarkProps) {
  const colour = RIPPLE_COLOURS[rating];
  if (colour === undefined && !withWord) return null;
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      {colour !== undefined && (
        <svg viewBox="0 0 12 12" className={`size-3 shrink-0 ${colour}`} aria-hidden="true">
          <path d={RIPPLE} fill="none" stroke="currentColor" strokeWidth="1.7" strokeLinecap="round" />
        </svg>
      )}
      <span className={withWord ? '' : 'sr-only'}>{rating}</span>
    </span>
  );
}
