'use client';

import { useState } from 'react';
import type { JoinPage } from '@/services';
import type { ComplaintForm } from '@/wire';

const WHATS: readonly (readonly [ComplaintForm['what'], string])[] = [
  ['calls', 'Calls and meetings'],
  ['pages', 'Pages and mail'],
  ['copies', 'Copying files'],
  ['everything', 'Everything'],
];

interface SlowNowProps {
  readonly join: JoinPage;
  readonly deviceName: string;
  readonly spotName: string;
  readonly busy: boolean;
  /** It was said: measure now. */
  readonly onSaid: () => void;
}

/** One tap for what is slow: it is told to the technician, and measured at once. */
export function SlowNow({ join, deviceName, spotName, busy, onSaid }: SlowNowProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const say = async (what: ComplaintForm['what']) => {
    setSending(true);
    setProblem(null);
    try {
      const response = await fetch('/api/v1/complaints', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ code: join.code, what, deviceName, spotName } satisfies ComplaintForm),
      });
      if (response.ok) onSaid();
      else setProblem(((await response.json()) as { readonly detail: string }).detail);
    } catch {
      setProblem('That did not get through. Try once more; if it does not, the network here is down.');
    } finally {
      setSending(false);
    }
  };
  return (
    <section aria-label="It is slow now" className="mb-6">
      <h1 className="text-[1.6rem] font-semibold leading-tight">What is slow right now?</h1>
      <p className="mb-4 mt-1 break-words text-quiet">
        {spotName === '' ? join.siteName : `${spotName}, ${join.siteName}`}. It is measured at once, about half a
        minute, and the technician is told.
      </p>
      <div className="grid grid-cols-2 gap-3">
        {WHATS.map(([what, words]) => (
          <button
            key={what}
            type="button"
            disabled={busy || sending}
            onClick={() => void say(what)}
            className="min-h-16 rounded-[3px] border-[1.5px] border-quiet px-3 text-[1.05rem] hover:border-ink hover:bg-sheet disabled:text-quiet"
          >
            {words}
          </button>
        ))}
      </div>
      {problem !== null && (
        <p role="alert" className="mt-3 border-l-[3px] border-starved pl-4">
          {problem}
        </p>
      )}
    </section>
  );
}
