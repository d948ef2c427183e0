import {
  differenceWords,
  fairnessWords,
  QUANTITY_NAMES,
  sideFigureWords,
  sideSentences,
  TRAIT_WORDS,
  type SideFigures,
} from '@/core';
import type { ShownTray, SidePage } from '@/services';
import { wallTimeWords } from '../parts/wall-time';
import { DotRows } from './dot-rows';

const SHAPES = ['●', '◆', '▲', '■', '○', '◇', '△', '□'] as const;
const MOST_VALUES = 3;

function listed(values: readonly string[]): string {
  const more = values.length - MOST_VALUES;
  return values.slice(0, MOST_VALUES).join(', ') + (more > 0 ? ` and ${more} more` : '');
}

function occasionWords(runs: SidePage['trays'][number]['runs']): string {
  const count = new Set(runs.map(({ occasion }) => occasion)).size;
  return `${count} ${count === 1 ? 'occasion' : 'occasions'}`;
}

function WhatDiffers({ page }: { readonly page: SidePage }) {
  const { differences, fairness } = page.side;
  return (
    <section aria-label="What differs" className="mt-4">
      <ul className="flex flex-wrap gap-2 text-sm">
        {differences.map(({ trait, values }) => (
          <li
            key={trait}
            className={`max-w-full border px-2 py-0.5 ${fairness === 'unfair' ? 'border-thin text-thin-words' : 'border-ink'}`}
          >
            {TRAIT_WORDS[trait]}: <span className="text-ink">{values.map((of) => listed(of)).join(' | ')}</span>
          </li>
        ))}
      </ul>
      <p className={`mt-1.5 text-sm ${fairness === 'unfair' ? 'text-thin-words' : 'text-quiet'}`}>
        {fairnessWords(page.side)}
      </p>
    </section>
  );
}

function Quantity({ figures, names }: { readonly figures: SideFigures; readonly names: readonly string[] }) {
  if (figures.trays.every(({ count }) => count === 0))
    return (
      <tr className="border-t border-hairline">
        <th scope="row" className="py-2 pr-4 text-left align-top font-normal">
          {QUANTITY_NAMES[figures.quantity]}
        </th>
        <td colSpan={3} className="py-2 text-quiet">
          not measured in any of these runs
        </td>
      </tr>
    );
  return (
    <tr className="break-inside-avoid border-t border-hairline align-top">
      <th scope="row" className="w-40 py-2 pr-4 text-left font-normal">
        {QUANTITY_NAMES[figures.quantity]}
      </th>
      <td className="w-[30rem] py-1 pr-6">
        <DotRows figures={figures} names={names} />
      </td>
      <td className="py-2 pr-6">
        <ul className="space-y-[3px] text-sm leading-[21px]">
          {figures.trays.map(({ median, interval }, place) => (
            <li key={names[place]} className="figure whitespace-nowrap text-[0.8rem]">
              <span aria-hidden="true">{SHAPES[place]}</span> {sideFigureWords(figures.quantity, median)}
              {interval !== null && (
                <span className="text-quiet">
                  {' '}
                  {sideFigureWords(figures.quantity, interval.low).replace(/ \D+$/, '')} to{' '}
                  {sideFigureWords(figures.quantity, interval.high).replace(/ \D+$/, '')}
                </span>
              )}
            </li>
          ))}
        </ul>
      </td>
      <td className="py-2 text-sm">
        <ul className="space-y-1">
          {figures.against.map((compared, index) => (
            <li key={names[index + 1]}>
              {names.length > 2 && (
                <span className="text-quiet">
                  <span aria-hidden="true">{SHAPES[index + 1]}</span> {names[index + 1]}:{' '}
                </span>
              )}
              {differenceWords(figures.quantity, compared)}
            </li>
          ))}
        </ul>
      </td>
    </tr>
  );
}

/** Where the runs of a tray come from, and how many they are. */
function TrayLine({ tray, shape }: { readonly tray: ShownTray; readonly shape: string }) {
  const { name, runs, aside, query, chosen } = tray;
  return (
    <li className="min-w-0">
      <span aria-hidden="true">{shape}</span> <span className="font-semibold">{name}</span>{' '}
      <span className="text-quiet">
        {runs.length === 0
          ? 'no run that counts'
          : `${runs.length} ${runs.length === 1 ? 'run' : 'runs'} on ${occasionWords(runs)}`}
        {aside > 0 && `, ${aside} more that do not count`}
        {query !== '' && (
          <>
            {' '}
            · <span className="figure text-[0.78rem]">{query}</span>
          </>
        )}
        {chosen !== null && ' · chosen by hand'}
      </span>
    </li>
  );
}

/** Trays of runs side by side: one sentence to quote, what differs, and every quantity with its runs. */
export function SideView({ page }: { readonly page: SidePage }) {
  const { trays, compared, side } = page;
  const names = compared.map(({ name }) => name);
  return (
    <article>
      <p className="mb-2 hidden text-sm text-quiet print:block">
        {page.siteName}
        {page.demo && ' · demo data'} · held side by side by {page.byName}, {wallTimeWords(page.madeAtMs, { nowMs: 0 })}
      </p>
      {sideSentences(side, compared).map((sentence) => (
        <p key={sentence} className="max-w-[60rem] text-[1.2rem] leading-snug">
          {sentence}
        </p>
      ))}
      <WhatDiffers page={page} />
      <ul aria-label="Trays" className="mt-4 flex flex-wrap gap-x-8 gap-y-1 text-sm">
        {trays.map((tray, index) => (
          <TrayLine key={`${tray.name} ${index}`} tray={tray} shape={SHAPES[compared.indexOf(tray)] ?? '–'} />
        ))}
      </ul>
      <div className="mt-3 overflow-x-auto">
        <table className="w-full border-collapse" aria-label="Each quantity side by side">
          <thead className="sr-only">
            <tr>
              <th>quantity</th>
              <th>runs</th>
              <th>medians with their 95 % intervals</th>
              <th>difference</th>
            </tr>
          </thead>
          <tbody>
            {side.figures.map((figures) => (
              <Quantity key={figures.quantity} figures={figures} names={names} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-3 max-w-[60rem] text-xs text-quiet">
        Medians with 95 % intervals (sign test); differences by Hodges and Lehmann with the interval of the Mann–Whitney
        distribution, of the medians of occasions where both trays have four
        {compared.length > 2 && '; several are held against the first, by Holm’s step-down'}. What counts: runs that are
        evidence of their own path.
      </p>
    </article>
  );
}
