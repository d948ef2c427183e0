'use client';

import { useOptimistic, useState, useTransition } from 'react';
import { CHECK_WORDS, type CheckCode } from '@/core';
import type { HuntPage } from '@/services';

interface CheckFirstProps {
  readonly checks: HuntPage['checks'];
  readonly ruleOut: (check: CheckCode, out: boolean) => Promise<string | null>;
}

/** What a look can rule out before anything is measured: each tick is evidence. */
export function CheckFirst({ checks, ruleOut }: CheckFirstProps) {
  const [refused, setRefused] = useState<string | null>(null);
  const [ticking, startTicking] = useTransition();
  // A tick is seen at once, and is what the console says as soon as that has answered.
  const [shown, show] = useOptimistic(
    checks,
    (before, { check, done }: Pick<HuntPage['checks'][number], 'check' | 'done'>) =>
      before.map((each) => (each.check === check ? { ...each, done } : each)),
  );
  const tick = (check: CheckCode, out: boolean) =>
    startTicking(async () => {
      show({ check, done: out });
      setRefused(await ruleOut(check, out));
    });
  return (
    <fieldset className="min-w-0" aria-busy={ticking}>
      <legend className="font-semibold">Look first</legend>
      <p className="mb-1 text-sm text-quiet">
        Tick what you have seen to be so. Each tick counts as evidence for a day.
      </p>
      <ul className="space-y-1">
        {shown.map(({ check, done, hint }) => (
          <li key={check}>
            <label className="inline-flex min-h-8 cursor-pointer items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={done}
                onChange={(event) => tick(check, event.target.checked)}
              />
              {CHECK_WORDS[check]}
            </label>
            {hint !== null && <p className="pl-6 text-sm text-quiet">{hint}</p>}
          </li>
        ))}
      </ul>
      {refused !== null && (
        <p role="alert" className="text-sm text-starved">
          {refused}
        </p>
      )}
    </fieldset>
  );
}
