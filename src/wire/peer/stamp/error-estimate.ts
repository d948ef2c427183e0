/** How far a clock may be off (RFC 4656 §4.1.2): whether it is synchronised to UTC, and by how much it may err. */
export interface ErrorEstimate {
  readonly synchronised: boolean;
  readonly errorMs: number;
}

const SYNCHRONISED_BIT = 0x8000;
const UNIT_MS = 1000 / 2 ** 32;
const MOST_SCALE = 63;

/** S bit, Z bit (0: NTP timestamps), 6 bits of scale, 8 bits of multiplier: error = multiplier × 2^(scale − 32) s. */
export function encodeErrorEstimate({ synchronised, errorMs }: ErrorEstimate): number {
  const units = Math.max(1, errorMs / UNIT_MS);
  const scale = Math.min(MOST_SCALE, Math.max(0, Math.ceil(Math.log2(units / 255))));
  const multiplier = Math.min(255, Math.max(1, Math.ceil(units / 2 ** scale)));
  return (synchronised ? SYNCHRONISED_BIT : 0) | (scale << 8) | multiplier;
}

export function decodeErrorEstimate(value: number): ErrorEstimate {
  const scale = (value >> 8) & MOST_SCALE;
  return { synchronised: (value & SYNCHRONISED_BIT) !== 0, errorMs: (value & 0xff) * 2 ** scale * UNIT_MS };
}
