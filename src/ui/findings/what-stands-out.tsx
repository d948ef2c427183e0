'use client';

import { useState } from 'react';
import { agoWords } from '@/core';
import type { StandsOut } from '@/services';
import { ComplaintLine } from './complaint-line';
import { FindingLine } from './finding-line';
import type { LetBe } from './let-be-form';

interface WhatStandsOutProps {
  readonly out: StandsOut;
  readonly nowMs: number;
  /** How many devices the office has: without any there is nothing to say. */
  readonly deviceCount: number;
  readonly letBe: LetBe;
  readonly openAgain: (findingId: string) => Promise<string | null>;
  readonly hunt: (findingId: string) => Promise<string | null>;
  readonly see: (complaintId: string) => Promise<string | null>;
  readonly huntDevice: (deviceId: string | null) => Promise<string | null>;
}

/** So many are seen at once; the others are behind one press. */
const AT_ONCE = 3;

function unmeasuredWords(names: readonly string[]): string {
  if (names.length === 0) return '';
  const some = names.slice(0, 3).join(', ');
  const more = names.length > 3 ? ` and ${names.length - 3} more` : '';
  return ` Not measured in the last two weeks: ${some}${more}.`;
}

/** The worst that was found in this office, in sentences; one line where nothing is wrong. */
export function WhatStandsOut({ out, nowMs, deviceCount, see, huntDevice, ...actions }: WhatStandsOutProps) {
  const [all, setAll] = useState(false);
  const { findings, madeAtMs, unmeasured, complaints } = out;
  const open = findings.filter(({ state }) => state !== 'let-be');
  const shown = all ? findings : open.slice(0, AT_ONCE);
  const more = findings.length - Math.min(open.length, AT_ONCE);
  if (deviceCount === 0) return null;
  return (
    <section aria-label="What stands out" className="mb-2">
      <h2 className="sr-only">What stands out</h2>
      {open.length === 0 && (
        <p className="py-1.5 text-quiet">
          {madeAtMs === null
            ? 'Nothing has been looked at yet: what stands out is worked out from the first runs on.'
            : `Nothing stands out, as of ${agoWords(nowMs - madeAtMs)}.${unmeasuredWords(unmeasured)}`}
        </p>
      )}
      <ul>
        {complaints.map((complaint) => (
          <ComplaintLine key={complaint.id} complaint={complaint} see={see} hunt={huntDevice} />
        ))}
        {shown.map((finding) => (
          <FindingLine key={finding.id} finding={finding} nowMs={nowMs} {...actions} />
        ))}
      </ul>
      {more > 0 && (
        <button
          type="button"
          className="py-1 text-sm text-quiet underline decoration-hairline underline-offset-4 hover:text-ink"
          onClick={() => setAll(!all)}
        >
          {all ? 'only the worst' : `${more} more`}
        </button>
      )}
    </section>
  );
}
