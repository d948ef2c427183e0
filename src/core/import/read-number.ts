/** How a file writes what is behind the whole number. The other sign parts thousands, as blanks and apostrophes do. */
export const DECIMALS = ['point', 'comma'] as const;
export type Decimals = (typeof DECIMALS)[number];

const FORMS: Readonly<Record<Decimals, RegExp>> = {
  point: /^[-+]?(?:\d{1,3}(?:,\d{3})+|\d+)?(?:\.\d*)?(?:[eE][-+]?\d{1,3})?$/,
  comma: /^[-+]?(?:\d{1,3}(?:\.\d{3})+|\d+)?(?:,\d*)?(?:[eE][-+]?\d{1,3})?$/,
};

/** A number as a file writes it; null where it is none. Thousands are parted in threes or not at all. */
export function readNumber(text: string, decimals: Decimals): number | null {
  const plain = text.trim().replace(/(\d)[\s\u00A0\u2009\u202F'’](?=\d{3})/g, '$1');
  if (!/\d/.test(plain) || !FORMS[decimals].test(plain)) return null;
  const [thousands, decimal] = decimals === 'point' ? [/,/g, '.'] : [/\./g, ','];
  const value = Number(plain.replace(thousands, '').replace(decimal, '.'));
  return Number.isFinite(value) ? value : null;
}

/** Which of the two most figures of a file are written with; null where as many tell the one as the other. */
export function decimalsOf(texts: readonly string[]): Decimals | null {
  const told = { point: 0, comma: 0 };
  for (const text of texts) {
    const [, sign, behind] = /^[^.,]*([.,])(\d+)\D*$/.exec(text.trim()) ?? [];
    // One sign with three digits behind it may part thousands.
    if (behind !== undefined && behind.length !== 3) told[sign === ',' ? 'comma' : 'point'] += 1;
  }
  if (told.point === told.comma) return null;
  return told.point > told.comma ? 'point' : 'comma';
}
