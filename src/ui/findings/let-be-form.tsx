'use client';

import { useState } from 'react';

/** Answers with what stands in the way, or null. */
export type LetBe = (findingId: string, reason: string) => Promise<string | null>;

/** Lets a finding be, with a reason: one line, shown where it is asked for. */
export function LetBeForm({ findingId, letBe }: { readonly findingId: string; readonly letBe: LetBe }) {
  const [asked, setAsked] = useState(false);
  const [reason, setReason] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  if (!asked)
    return (
      <button
        type="button"
        className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
        onClick={() => setAsked(true)}
      >
        let it be
      </button>
    );
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void letBe(findingId, reason).then(setSaid);
      }}
    >
      <label className="min-w-64 flex-1">
        why it may stay as it is
        <input
          className="field !min-h-9"
          value={reason}
          maxLength={300}
          onChange={(event) => setReason(event.target.value)}
          autoFocus
        />
      </label>
      <button type="submit" className="pb-2 text-ink underline underline-offset-4">
        let it be
      </button>
      {said !== null && (
        <span role="alert" className="pb-2 text-starved">
          {said}
        </span>
      )}
    </form>
  );
}
