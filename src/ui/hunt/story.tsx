import Link from 'next/link';
import { addedDelayWords, CHECK_WORDS, rateFigure, rateWords, SWAP_WORDS } from '@/core';
import type { StoryLine } from '@/services';
import { WallTime } from '../parts/wall-time';

const ENDS: Readonly<Record<string, string>> = {
  found: 'found it',
  mended: 'mended it',
  'given-up': 'gave up',
  open: 'went on',
};

function Line({ line }: { readonly line: StoryLine }) {
  switch (line.kind) {
    case 'opened':
      return <>{line.byName || 'Somebody'} began.</>;
    case 'run':
      return (
        <>
          <Link
            prefetch={false}
            href={`/runs/${line.runId}`}
            className="underline decoration-hairline underline-offset-4"
          >
            {line.deviceName}, {line.reach}
          </Link>
          : <span className="figure text-[0.85em]">{rateFigure(line.downBps)}</span>
          {line.soundBps !== null && <span className="text-quiet"> of {rateFigure(line.soundBps)}</span>} down,{' '}
          <span className="figure text-[0.85em]">{rateFigure(line.upBps)}</span> up
          {line.addedMs !== null && (
            <>
              , <span className="figure text-[0.85em]">{addedDelayWords(line.addedMs)}</span>
            </>
          )}
        </>
      );
    case 'swap':
      return (
        <>
          Swapped: {SWAP_WORDS[line.what]} ({line.words}). <span className="text-quiet">{line.byName}</span>
        </>
      );
    case 'note':
      return (
        <>
          “{line.text}” <span className="text-quiet">{line.byName}</span>
        </>
      );
    case 'checked':
      return (
        <>
          {line.out ? 'Looked: ' : 'Taken back: '}
          {CHECK_WORDS[line.check]}. <span className="text-quiet">{line.byName}</span>
        </>
      );
    case 'queue-set':
      return (
        <>
          The queue was set to {rateWords(line.bps)}. <span className="text-quiet">{line.byName}</span>
        </>
      );
    case 'ended':
      return (
        <>
          {line.byName} {ENDS[line.state] ?? line.state}
          {line.text === '' ? '.' : `: ${line.text}`}
        </>
      );
  }
}

/** What has happened in a hunt, in short lines, the oldest first. */
export function Story({ lines }: { readonly lines: readonly StoryLine[] }) {
  return (
    <ol className="text-[0.9rem]">
      {lines.map((line, index) => (
        <li key={`${line.atMs} ${index}`} className="grid grid-cols-[7.2rem_1fr] gap-x-3 border-t border-hairline py-1">
          <span className="text-quiet">
            <WallTime atMs={line.atMs} />
          </span>
          <span className="min-w-0 break-words">
            <Line line={line} />
          </span>
        </li>
      ))}
    </ol>
  );
}
