'use client';

import { useSyncExternalStore } from 'react';
import { TOLD_CONDITIONS, type ToldCondition } from '@/core';

interface NavigatorWithConnection extends Navigator {
  readonly connection?: { readonly saveData?: boolean; readonly type?: string };
}

function onNetworkChange(changed: () => void): () => void {
  window.addEventListener('online', changed);
  window.addEventListener('offline', changed);
  return () => {
    window.removeEventListener('online', changed);
    window.removeEventListener('offline', changed);
  };
}

/** What the browser lets be noticed before a run, a sentence each. */
export function noticedNow(): string[] {
  const { connection } = navigator as NavigatorWithConnection;
  const found: string[] = [];
  if (connection?.saveData) found.push('Data saver is on: this run moves a lot of data.');
  if (connection?.type === 'cellular') found.push('This device is on mobile data, not on the office network.');
  if (!navigator.onLine) found.push('The browser says that this device is offline.');
  return found;
}

const TOLD_WORDS: Record<ToldCondition, string> = {
  backup: 'A backup or a sync is running',
  update: 'An update is being fetched',
  others: 'Others are using the line',
};

interface BeforeRunProps {
  /** What the console noticed, a sentence each. */
  readonly notices: readonly string[];
  readonly told: readonly ToldCondition[];
  readonly onTold: (told: readonly ToldCondition[]) => void;
}

/** A short list of things to check first: what was noticed, and what only the person can know. */
export function BeforeRun({ notices, told, onTold }: BeforeRunProps) {
  const seen = useSyncExternalStore(
    onNetworkChange,
    () => noticedNow().join('\n'),
    () => '',
  )
    .split('\n')
    .filter(Boolean);
  const facts = [...notices, ...seen];
  return (
    <section className="mt-6 text-[0.9375rem] text-quiet">
      <ul className="space-y-1">
        {facts.map((fact) => (
          <li key={fact} className="border-l-2 border-thin pl-3 text-ink">
            {fact}
          </li>
        ))}
        <li className="border-l-2 border-hairline pl-3">The VPN is off, unless it is what you want to test.</li>
        <li className="border-l-2 border-hairline pl-3">Keep this page in front until the result is there.</li>
      </ul>
      <fieldset className="mt-4">
        <legend>Is anything else going on? Best is nothing; what is ticked is kept with the run.</legend>
        {TOLD_CONDITIONS.map((condition) => (
          <label key={condition} className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-5 accent-[var(--ink)]"
              checked={told.includes(condition)}
              onChange={(event) =>
                onTold(event.target.checked ? [...told, condition] : told.filter((other) => other !== condition))
              }
            />
            {TOLD_WORDS[condition]}
          </label>
        ))}
      </fieldset>
    </section>
  );
}
