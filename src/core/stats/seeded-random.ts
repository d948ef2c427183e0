/** A source of numbers in [0, 1). Passed in wherever chance is needed, so that results can be repeated. */
export type RandomSource = () => number;

/**
 * A small repeatable generator (a 32-bit mixing function over a Weyl sequence; period 2^32).
 * For resampling and demo data, never for secrets.
 */
export function seededRandom(seed: number): RandomSource {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    let mixed = state ^ (state >>> 16);
    mixed = Math.imul(mixed, 0x21f0aaad);
    mixed ^= mixed >>> 15;
    mixed = Math.imul(mixed, 0x735a2d97);
    mixed ^= mixed >>> 15;
    return (mixed >>> 0) / 4294967296;
  };
}
