'use client';

import { useSyncExternalStore } from 'react';

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

/** What the browser lets be noticed before a run, a sentence a line. */
function noticed(): string {
  const { connection } = navigator as NavigatorWithConnection;
  const found: string[] = [];
  if (connection?.saveData) found.push('Data saver is on: this run moves a lot of data.');
  if (connection?.type === 'cellular') found.push('This device is on mobile data, not on the office network.');
  if (!navigator.onLine) found.push('The browser says that this device is offline.');
  return found.join('\n');
}

/** A short list of things to check first: what was noticed, and what only a person can know. */
export function BeforeRun() {
  const facts = useSyncExternalStore(onNetworkChange, noticed, () => '')
    .split('\n')
    .filter(Boolean);
  return (
    <ul className="mt-6 space-y-1 text-[0.9375rem] text-quiet">
      {facts.map((fact) => (
        <li key={fact} className="border-l-2 border-thin pl-3 text-ink">
          {fact}
        </li>
      ))}
      <li className="border-l-2 border-hairline pl-3">
        No backup, update or video call is running, here or on the same line.
      </li>
      <li className="border-l-2 border-hairline pl-3">The VPN is off, unless it is what you want to test.</li>
      <li className="border-l-2 border-hairline pl-3">Keep this page in front until the result is there.</li>
    </ul>
  );
}
