import type { VerdictWord } from '@/core';

const SHAPES: Record<VerdictWord, { readonly colour: string; readonly shape: React.ReactNode }> = {
  full: { colour: 'text-ink', shape: <circle cx="6" cy="6" r="4.6" fill="currentColor" /> },
  thin: {
    colour: 'text-thin',
    shape: (
      <>
        <circle cx="6" cy="6" r="4.3" fill="none" stroke="currentColor" strokeWidth="1.3" />
        <path d="M6 1.4a4.6 4.6 0 0 0 0 9.2z" fill="currentColor" />
      </>
    ),
  },
  starved: { colour: 'text-starved', shape: <path d="M.9 1.8h10.2L6 11z" fill="currentColor" /> },
  'no verdict': {
    colour: 'text-quiet',
    shape: (
      <>
        <circle cx="6" cy="6" r="4.2" fill="none" stroke="currentColor" strokeWidth="1.3" />
        <path d="M3 6h6" stroke="currentColor" strokeWidth="1.3" />
      </>
    ),
  },
};

interface VerdictMarkProps {
  readonly verdict: VerdictWord;
  /** Whether the word stands beside the shape; otherwise it is there for screen readers. */
  readonly withWord?: boolean;
}

/** A verdict as shape and word: told apart without colour, and quiet when all is well. */
export function VerdictMark({ verdict, withWord = false }: VerdictMarkProps) {
  const { colour, shape } = SHAPES[verdict];
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <svg viewBox="0 0 12 12" className={`size-3 shrink-0 ${colour}`} aria-hidden="true">
        {shape}
      </svg>
      <span className={withWord ? '' : 'sr-only'}>{verdict}</span>
    </span>
  );
}
