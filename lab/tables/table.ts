import { median } from '@/core';

/** Prints a Markdown table row by row, as each is known. */
export class Table {
  constructor(
    title: string,
    note: string,
    private readonly heads: readonly string[],
  ) {
    console.log(`\n### ${title}\n\n${note}\n\n| ${heads.join(' | ')} |\n|${heads.map(() => '---|').join('')}`);
  }

  row(...cells: readonly (string | number)[]): void {
    if (cells.length !== this.heads.length) throw new RangeError(`a row of ${this.heads.length} cells was wanted`);
    console.log(`| ${cells.join(' | ')} |`);
  }
}

/** Median and worst of the absolute values, as a percentage: "0.12 % (0.30)". */
export function percentOf(shares: readonly (number | null)[]): string {
  const sizes = shares.filter((share) => share !== null).map((share) => Math.abs(share) * 100);
  const middle = median(sizes);
  return middle === null ? 'no figure' : `${middle.toFixed(2)} % (${Math.max(...sizes).toFixed(2)})`;
}

/** Median of figures in ms or Mb/s with so many decimals; "–" for none. */
export function medianOf(figures: readonly (number | null | undefined)[], decimals = 1): string {
  const middle = median(figures.filter((figure) => figure !== null && figure !== undefined));
  return middle === null ? '–' : middle.toFixed(decimals);
}
