/** Bufferbloat of a straw in one word; the added delay always stands beside it. */
export const BLOAT_RATINGS = ['crisp', 'firm', 'soft', 'soggy', 'collapsed'] as const;
export type BloatRating = (typeof BLOAT_RATINGS)[number];

/** Upper limits of added delay in ms, exclusive; from the last one on a straw is collapsed. */
export const BLOAT_LIMITS_MS: readonly (readonly [BloatRating, number])[] = [
  ['crisp', 10],
  ['firm', 30],
  ['soft', 75],
  ['soggy', 200],
];

/** The rating of an added delay in ms; null when it was not measured. */
export function rateBloat(addedMs: number | null): BloatRating | null {
  if (addedMs === null) return null;
  return BLOAT_LIMITS_MS.find(([, limitMs]) => addedMs < limitMs)?.[0] ?? 'collapsed';
}
