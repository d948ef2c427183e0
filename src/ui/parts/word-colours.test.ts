import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Colours that words wear, and the grounds that they stand on. */
const WORDS = ['ink', 'quiet', 'down', 'up-words', 'delay', 'thin-words', 'starved'];
const GROUNDS = ['paper', 'sheet'];
/** The least contrast of words of this size (WCAG 2.2, 1.4.3). */
const LEAST = 4.5;

const css = readFileSync(join(process.cwd(), 'src/app/globals.css'), 'utf8');

/** The colours of each block that sets the grounds: light, dark as chosen, dark as the machine has it, printed. */
const themes = [...css.matchAll(/\{([^{}]*--sheet: #[^{}]*)\}/g)].map(([, block]) =>
  Object.fromEntries([...block!.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map(([, name, hex]) => [name!, hex!])),
);

/** Relative luminance as WCAG 2.2 defines it, 0 to 1. */
function luminance(hex: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const value = parseInt(hex.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
}

function contrast(one: string, other: string): number {
  const [dark, light] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (light! + 0.05) / (dark! + 0.05);
}

test('black on white has the contrast that the standard gives', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
});

test('every colour that words wear can be read on paper and on a sheet, light, dark and printed', () => {
  expect(themes).toHaveLength(4);
  const faint = themes.flatMap((theme, index) =>
    WORDS.flatMap((word) =>
      GROUNDS.filter((ground) => contrast(theme[word]!, theme[ground]!) < LEAST).map(
        (ground) => `${index}: ${word} on ${ground}`,
      ),
    ),
  );
  expect(faint).toEqual([]);
});

test('both ways of being dark are the same', () => {
  expect(themes[1]).toEqual(themes[2]);
});
