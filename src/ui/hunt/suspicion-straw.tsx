import { rateFigure, shareWords } from '@/core';
import type { HuntPage } from '@/services';

type SuspicionStrawProps = Pick<HuntPage, 'segments' | 'direction'>;

function suspicionWords({ suspicion, provenBps }: HuntPage['segments'][number]): string {
  if (suspicion >= 0.005) return shareWords(suspicion);
  return provenBps === null ? 'no' : 'cleared';
}

/**
 * The path as lengths of straw, one below the other from the device outwards, each shaded by how likely it holds the rest
 * back: read as a picture from across the room, and as a table from near.
 */
export function SuspicionStraw({ segments, direction }: SuspicionStrawProps) {
  return (
    <table className="w-full border-collapse text-[0.875rem]" aria-label="What is suspected, part by part">
      <thead className="text-left text-xs text-quiet">
        <tr>
          <th className="py-0.5 font-normal">part of the way</th>
          <th className="w-36 px-2 text-right font-normal">proven {direction}, Mb/s</th>
          <th className="w-20 text-right font-normal">it is this</th>
        </tr>
      </thead>
      <tbody>
        {segments.map((segment) => (
          <tr key={segment.id} className="border-t border-hairline">
            <td className="relative max-w-0 py-1.5 pr-2">
              <span
                aria-hidden="true"
                className="absolute inset-y-1 left-0 bg-starved/25"
                style={{ width: `${Math.round(segment.suspicion * 100)}%` }}
              />
              <span
                aria-hidden="true"
                className={`absolute inset-y-1 left-0 right-0 border-y-[1.5px] border-ink ${segment.provenBps === null ? 'border-dashed opacity-40' : ''}`}
              />
              <span className="relative block truncate pl-2" title={segment.words}>
                {segment.words}
              </span>
            </td>
            <td className="figure px-2 text-right text-[0.8rem]">
              {segment.provenBps === null ? (
                <span className="text-quiet">nothing yet</span>
              ) : (
                rateFigure(segment.provenBps)
              )}
            </td>
            <td className={`figure text-right text-[0.8rem] ${segment.suspicion < 0.005 ? 'text-quiet' : ''}`}>
              {suspicionWords(segment)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
