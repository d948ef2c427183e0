import Link from 'next/link';
import {
  addedDelayWords,
  delayWords,
  linkKindWords,
  rateBloat,
  rateFigure,
  UNFINISHED_REASONS,
  type LinkKind,
} from '@/core';
import type { Ledger } from '@/services';
import { WallTime } from '../parts/wall-time';
import { StripSketch } from '../strip/strip-sketch';
import { VerdictMark } from '../verdict/verdict-mark';

type Row = Ledger['runs'][number];

const HEADS = ['when', 'device', 'link · reach', 'strip', 'down Mb/s', 'up Mb/s', 'idle', 'added', 'verdict'] as const;
const NUMERIC = new Set<string>(['down Mb/s', 'up Mb/s', 'idle', 'added']);

function Outcome({ run }: { readonly run: Row }) {
  if (run.status === 'finished')
    return (
      <>
        <td className="figure px-3 text-right">{rateFigure(run.downBps)}</td>
        <td className="figure px-3 text-right">{rateFigure(run.upBps)}</td>
        <td className="figure px-3 text-right text-[0.78rem]">{delayWords(run.idleMs)}</td>
        <td className="whitespace-nowrap px-3 text-right">
          <span className="figure text-[0.78rem] text-delay">
            {run.addedMs === null ? '–' : addedDelayWords(run.addedMs)}
          </span>{' '}
          <span className="inline-block w-17 text-left text-quiet">{rateBloat(run.addedMs)}</span>
        </td>
        <td className="pl-3">
          <VerdictMark verdict={run.verdict ?? 'no verdict'} withWord />
        </td>
      </>
    );
  const words =
    run.status === 'running' ? 'is measuring now' : UNFINISHED_REASONS[run.reason ?? 'device-vanished'].what;
  return (
    <td colSpan={5} className="px-3 text-quiet">
      {run.status === 'unfinished' && 'unfinished · '}
      {words}
    </td>
  );
}

/** All runs, the newest first, one row each. */
export function LedgerTable({ ledger }: { readonly ledger: Ledger }) {
  if (ledger.runs.length === 0)
    return (
      <p className="mt-16 text-center text-quiet">
        {ledger.filtered ? (
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
          {ledger.runs.map((run) => (
            <tr key={run.id} className="relative border-b border-hairline hover:bg-sheet">
              <td className="whitespace-nowrap py-1 pr-3">
                <Link prefetch={false} href={`/runs/${run.id}`} className="after:absolute after:inset-0">
                  <WallTime atMs={run.startedAtMs} />
                </Link>
              </td>
              <td className="max-w-56 px-3">
                <span className="line-clamp-2 break-words">{run.deviceName}</span>
              </td>
              <td className="whitespace-nowrap px-3 text-quiet">
                {linkKindWords(run.linkKind as LinkKind)} · {run.reach}
              </td>
              <td className="px-3 py-0.5">{run.sketch !== null && <StripSketch sketch={run.sketch} />}</td>
              <Outcome run={run} />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
