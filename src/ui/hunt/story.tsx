import { storyWho, storyWords, type StoryLine } from '@/core';
import { WallTime } from '../parts/wall-time';
import { Link } from '../parts/link';

function Line({ line }: { readonly line: StoryLine }) {
  const who = storyWho(line);
  if (line.kind === 'run')
    return (
      <>
        <Link href={`/runs/${line.runId}`} className="underline decoration-hairline underline-offset-4">
          {who}
        </Link>
        : <span className="figure text-[0.85em]">{storyWords(line)}</span>
      </>
    );
  return (
    <>
      {storyWords(line)} {who !== null && <span className="text-quiet">{who}</span>}
    </>
  );
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
