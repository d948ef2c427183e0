import { VERDICT_WORDS, type VerdictWord } from '@/core';
import { RIPPLE } from './delay-mark';

/** What each verdict looks like in a square of 12. */
export const VERDICT_SHAPES: Record<VerdictWord, React.ReactNode> = {
  full: <circle cx="6" cy="6" r="4.6" fill="currentColor" />,
  capped: (
    <>
      <circle cx="6" cy="6" r="2.6" fill="currentColor" />
      <path d="M3.6 1.2H1.2v9.6h2.4M8.4 1.2h2.4v9.6H8.4" fill="none" stroke="currentColor" strokeWidth="1.3" />
    </>
  ),
  thin: (
    <>
      <circle cx="6" cy="6" r="4.3" fill="none" stroke="currentColor" strokeWidth="1.3" />
      <path d="M6 1.4a4.6 4.6 0 0 0 0 9.2z" fill="currentColor" />
    </>
  ),
  starved: <path d="M.9 1.8h10.2L6 11z" fill="currentColor" />,
  'no verdict': (
    <>
      <circle cx="6" cy="6" r="4.2" fill="none" stroke="currentColor" strokeWidth="1.3" />
      <path d="M3 6h6" stroke="currentColor" strokeWidth="1.3" />
    </>
  ),
};

export const VERDICT_COLOURS: Record<VerdictWord, string> = {
  full: 'text-ink',
  capped: 'text-ink',
  thin: 'text-thin',
  starved: 'text-starved',
  'no verdict': 'text-quiet',
};

const idOf = (verdict: VerdictWord) => `verdict-${verdict.replace(' ', '-')}`;

/** For `use`, on a page that holds VerdictShapes. */
export const verdictShapeHref = (verdict: VerdictWord) => `#${idOf(verdict)}`;

/** The delay's mark, for `use`. */
export const RIPPLE_HREF = '#delay-ripple';

/** The shapes once for a whole page that draws hundreds. */
export function VerdictShapes() {
  return (
    <svg className="absolute size-0" aria-hidden="true">
      <symbol id="delay-ripple" viewBox="0 0 12 12">
        <path d={RIPPLE} fill="none" stroke="currentColor" strokeWidth="1.7" strokeLinecap="round" />
      </symbol>
      {VERDICT_WORDS.map((verdict) => (
        <symbol key={verdict} id={idOf(verdict)} viewBox="0 0 12 12">
          {VERDICT_SHAPES[verdict]}
        </symbol>
      ))}
    </svg>
  );
}
