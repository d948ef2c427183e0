'use client';

import Link from 'next/link';
import { StripSketch } from '../strip/strip-sketch';
import { VerdictMark } from '../verdict/verdict-mark';
import type { DrawnRun } from './drawn-run';

const HEADS = ['when', 'device', 'link · reach', 'strip', 'down Mb/s', 'up Mb/s', 'idle', 'added', 'verdict'] as const;
const NUMERIC = new Set<string>(['down Mb/s', 'up Mb/s', 'idle', 'added']);

function Outcome({ outcome }: Pick<DrawnRun, 'outcome'>) {
  if (outcome.status === 'other')
    return (
      <td colSpan={5} className="px-3 text-quiet">
        {outcome.words}
      </td>
    );
  const { down, up, idle, added, rating, verdict } = outcome;
  return (
    <>
      <td className="figure px-3 text-right">{down}</td>
      <td className="figure px-3 text-right">{up}</td>
      <td className="figure px-3 text-right text-[0.78rem]">{idle}</td>
      <td className="whitespace-nowrap px-3 text-right">
        <span className="figure text-[0.78rem] text-delay">{added}</span>{' '}
        <span className="inline-block w-17 text-left text-quiet">{rating}</span>
      </td>
      <td className="pl-3">
        <VerdictMark verdict={verdict} withWord />
      </td>
    </>
  );
}

interface LedgerTableProps {
  readonly runs: readonly DrawnRun[];
  /** Whether only some of the runs were asked for. */
  readonly filtered: boolean;
}

/** All runs, the newest first, one row each. */
export function LedgerTable({ runs, filtered }: LedgerTableProps) {
  if (runs.length === 0)
    return (
      <p className="mt-16 text-center text-quiet">
        {filtered ? (
          <>
            No run matches.{' '}
            <Link href="/ledger" className="text-ink underline">
              Show all of them.
            </Link>
          </>
        ) : (
          'Nothing has been measured yet. Join a device from the board and run.'
        )}
      </p>
    );
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse text-[0.875rem]">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left text-sm text-quiet">
            {HEADS.map((head) => (
              <th
                key={head}
                className={`whitespace-nowrap px-3 py-1 font-normal first:pl-0 ${NUMERIC.has(head) ? 'text-right' : ''}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {runs.map(({ id, when, device, place, strip, outcome }) => (
            <tr key={id} className="relative border-b border-hairline hover:bg-sheet">
              <td className="whitespace-nowrap py-1 pr-3">
                <Link prefetch={false} href={`/runs/${id}`} className="after:absolute after:inset-0">
                  {when}
                </Link>
              </td>
              <td className="max-w-56 px-3">
                <span className="line-clamp-2 break-words">{device}</span>
              </td>
              <td className="whitespace-nowrap px-3 text-quiet">{place}</td>
              <td className="px-3 py-0.5">{strip !== null && <StripSketch drawing={strip} />}</td>
              <Outcome outcome={outcome} />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
