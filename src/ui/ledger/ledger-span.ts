/** How far back the ledger looks: days. */
export const LEDGER_SPANS = { day: 1, week: 7, month: 30, year: 365 } as const;
export type LedgerSpan = keyof typeof LEDGER_SPANS;

export const SPAN_WORDS: Readonly<Record<LedgerSpan, string>> = {
  day: 'the last day',
  week: 'the last 7 days',
  month: 'the last 30 days',
  year: 'the last year',
};

/** When a span begins, UTC epoch ms. */
export function spanFromMs(span: LedgerSpan, nowMs: number): number {
  return nowMs - LEDGER_SPANS[span] * 24 * 3600_000;
}
