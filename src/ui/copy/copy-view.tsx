'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import {
  copyTime,
  countWords,
  durationWords,
  hoursWords,
  percentile,
  rateWords,
  throughStore,
  type CopyRates,
} from '@/core';
import type { CopyPage } from '@/services';
import { WallTime } from '../parts/wall-time';

const UNITS = { GB: 1e9, TB: 1e12, MB: 1e6 } as const;
type Unit = keyof typeof UNITS;
const MOST_BYTES = 1e15;

type Chosen = NonNullable<CopyPage['chosen']>;

function basisWords({ single, ratesBps }: CopyRates, days: number): string {
  const runs = countWords(ratesBps.length, single ? 'run' : 'occasion');
  return single
    ? `By ${runs} with one connection, as one copy has it, of the last ${days} days.`
    : `By ${runs} of the last ${days} days with several connections. One copy is one connection, which on a long path may get less: a round with the profile single tells.`;
}

function Way({
  title,
  bytes,
  rates,
  slow,
  days,
}: {
  title: string;
  bytes: number;
  rates: CopyRates;
  slow: readonly number[];
  days: number;
}) {
  const time = copyTime(bytes, rates.ratesBps, rates.badBps);
  if (time === null)
    return (
      <section className="border-t-[1.5px] border-ink py-4">
        <h2 className="text-quiet">{title}</h2>
        <p>Not known: no rate was measured this way.</p>
      </section>
    );
  const isBad = time.badSeconds > 1.02 * time.usualSeconds;
  return (
    <section className="border-t-[1.5px] border-ink py-4">
      <h2 className="text-quiet">{title}</h2>
      <p className="text-2xl font-semibold">{durationWords(time.usualSeconds)}</p>
      {isBad && (
        <p>
          {durationWords(time.badSeconds)} {slow.length > 0 ? hoursWords(slow) : 'in the slowest tenth'}
        </p>
      )}
      <p className="mt-2 text-sm text-quiet">
        At {rateWords(percentile(rates.ratesBps, 0.5))}
        {rates.badBps !== null && `, ${rateWords(rates.badBps)} in the slow hours`}. {basisWords(rates, days)}
      </p>
    </section>
  );
}

function Times({ chosen, days }: { readonly chosen: Chosen; readonly days: number }) {
  const [typed, setTyped] = useState('100');
  const [unit, setUnit] = useState<Unit>('GB');
  const { store } = chosen;
  const [byStore, setByStore] = useState(store !== null && chosen.subject.key.endsWith(' local'));
  const through = (rates: CopyRates, bps: number | null | undefined) =>
    byStore ? throughStore(rates, bps ?? null) : rates;
  const size = Number(typed.replace(',', '.'));
  const bytes = size * UNITS[unit];
  const valid = typed.trim() !== '' && Number.isFinite(size) && size > 0 && bytes <= MOST_BYTES;
  return (
    <>
      <div className="mt-3 flex items-end gap-2">
        <label className="text-sm">
          <span className="block text-quiet">how much</span>
          <input
            value={typed}
            inputMode="decimal"
            aria-invalid={!valid}
            onChange={({ target }) => setTyped(target.value)}
            className="field figure !min-h-9 !w-28 !py-0 text-right"
          />
        </label>
        <select
          aria-label="unit"
          value={unit}
          onChange={({ target }) => setUnit(target.value as Unit)}
          className="field !min-h-9 !w-20 !py-0"
        >
          {(['MB', 'GB', 'TB'] as const).map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </div>
      {valid ? (
        <div className="mt-4 grid max-w-[56rem] gap-x-10 sm:grid-cols-2">
          <Way
            title="to fetch it"
            bytes={bytes}
            rates={through(chosen.down, store?.downBps)}
            slow={chosen.slowHours.down}
            days={days}
          />
          <Way
            title="to send it"
            bytes={bytes}
            rates={through(chosen.up, store?.upBps)}
            slow={chosen.slowHours.up}
            days={days}
          />
        </div>
      ) : (
        <p role="alert" className="mt-3 text-sm font-medium text-starved">
          Write a size, such as 250.
        </p>
      )}
      {store !== null && (
        <label className="mt-1 flex max-w-[44rem] items-baseline gap-2">
          <input
            type="checkbox"
            className="size-4 translate-y-0.5 accent-ink"
            checked={byStore}
            onChange={({ target }) => setByStore(target.checked)}
          />
          <span>
            by way of the share {store.folder}, which gives {rateWords(store.downBps)} and takes{' '}
            {rateWords(store.upBps)}{' '}
            <span className="text-quiet">
              (<WallTime atMs={store.atMs} />)
            </span>
          </span>
        </label>
      )}
      <p className="mt-2 max-w-[44rem] text-sm text-quiet">
        {byStore ? 'The lower of network and store' : 'The network alone'}, with 3 % for headers: a slow disk at either
        end, or many small files, take longer. 1 GB is 1000 MB.
      </p>
    </>
  );
}

/** How long a copy takes from a device as far as one chooses, usually and in a bad hour. */
export function CopyView({ page, days }: { readonly page: CopyPage; readonly days: number }) {
  const router = useRouter();
  const { subjects, chosen } = page;
  return (
    <>
      <h1 className="text-xl font-semibold">How long a copy takes</h1>
      {chosen === null ? (
        <p className="mt-2 text-quiet">Nothing was measured yet. Show a device the code, and run.</p>
      ) : (
        <>
          <label className="mt-3 block text-sm">
            <span className="block text-quiet">from where, how far</span>
            <select
              className="field !min-h-9 max-w-[32rem] !py-0"
              value={chosen.subject.key}
              onChange={({ target }) => router.replace(`/copy?of=${encodeURIComponent(target.value)}`)}
            >
              {subjects.map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <Times chosen={chosen} days={days} />
        </>
      )}
    </>
  );
}
