'use client';

import { useState } from 'react';
import { agoWords } from '@/core';
import type { ShownFinding } from '@/services';
import { LetBeForm, type LetBe } from './let-be-form';
import { StrengthMark } from './strength-mark';
import { Link } from '../parts/link';

interface FindingLineProps {
  readonly finding: ShownFinding;
  readonly nowMs: number;
  readonly letBe: LetBe;
  readonly openAgain: (findingId: string) => Promise<string | null>;
  readonly hunt: (findingId: string) => Promise<string | null>;
}

function touchedWords({ devices, deviceCount }: ShownFinding): string {
  if (deviceCount === 0) return '';
  const more = deviceCount - devices.length;
  return more > 0 ? `${devices.join(', ')} and ${more} more` : devices.join(', ');
}

function Runs({ title, ids }: { readonly title: string; readonly ids: readonly string[] }) {
  if (ids.length === 0) return null;
  return (
    <span>
      {title}:{' '}
      {ids.map((id, index) => (
        <span key={id}>
          {index > 0 && ', '}
          <Link href={`/runs/${id}`} className="text-ink underline underline-offset-2">
            run {index + 1}
          </Link>
        </span>
      ))}
    </span>
  );
}

const ACTION = 'underline decoration-hairline underline-offset-4 hover:decoration-ink';

/** One finding as a sentence with figures; behind it why, whom it touches, and what to do. */
export function FindingLine({ finding, nowMs, letBe, openAgain, hunt }: FindingLineProps) {
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const rests = finding.state === 'let-be';
  return (
    <li className={`border-b border-hairline py-1.5 ${rests ? 'text-quiet' : ''}`}>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-0.5">
        <p className="min-w-0 flex-1 basis-[34rem] break-words">
          {!rests && (
            <svg
              viewBox="0 0 20 12"
              className={`mr-2 inline-block h-3 w-5 ${finding.isGood ? 'text-quiet' : 'text-starved'}`}
              aria-hidden="true"
            >
              <path
                d={finding.isGood ? 'M0 6h20' : 'M0 3h7l3 6 3-6h7'}
                fill="none"
                stroke="currentColor"
                strokeWidth="2.2"
                strokeLinejoin="round"
                strokeLinecap="round"
              />
            </svg>
          )}
          {finding.sentence}
        </p>
        <span className="flex shrink-0 items-baseline gap-4 text-sm">
          {finding.state === 'worked-on' && <span className="text-quiet">being hunted</span>}
          <StrengthMark strength={finding.strength} />
          <button type="button" className={ACTION} aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'less' : 'show why'}
          </button>
          {rests ? (
            <button
              type="button"
              className={ACTION}
              onClick={() => void openAgain(finding.id).then((refusal) => setSaid(refusal))}
            >
              take up again
            </button>
          ) : finding.isGood ? null : (
            <button type="button" className={ACTION} onClick={() => void hunt(finding.id).then(setSaid)}>
              hunt
            </button>
          )}
        </span>
      </div>
      {said !== null && (
        <p role="alert" className="text-sm text-starved">
          {said}
        </p>
      )}
      {open && (
        <div className="mt-1 space-y-1 pb-1 pl-7 text-sm text-quiet">
          <p>
            <span className="text-ink">{finding.nextStep}</span>
          </p>
          {finding.deviceCount > 0 && <p>Touches {touchedWords(finding)}.</p>}
          <p className="flex flex-wrap gap-x-6">
            <Runs title="For it" ids={finding.runsFor} />
            <Runs title="Against it" ids={finding.runsAgainst} />
            {finding.runsFor.length > 1 && (
              <Link className="text-ink underline" href={`/ledger?q=finding%3D${encodeURIComponent(finding.id)}`}>
                all of them in the ledger
              </Link>
            )}
            {finding.sinceMs > 0 && Number.isFinite(finding.sinceMs) && (
              <span>First seen {agoWords(nowMs - finding.sinceMs)}</span>
            )}
          </p>
          {rests ? <p>Let be: {finding.reason}</p> : <LetBeForm findingId={finding.id} letBe={letBe} />}
        </div>
      )}
    </li>
  );
}
