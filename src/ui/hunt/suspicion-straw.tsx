import { rateFigure, shareWords } from '@/core';
import type { HuntPage } from '@/services';

interface SuspicionStrawProps {
  readonly segments: HuntPage['segments'];
}

/**
 * The path as lengths of straw, one below the other from the device outwards, each shaded by how likely it holds the rest
 * back: read as a picture from across the room, and as a table from near.
 */
export function SuspicionStraw({ segments }: SuspicionStrawProps) {
  return (
    <table className="w-full border-collapse text-[0.875rem]" aria-label="What is suspected, part by part">
      <thead className="text-left text-xs text-quiet">
        <tr>
          <th className="py-0.5 font-normal">part of the way</th>
          <th className="w-28 px-2 text-right font-normal">proven, Mb/s</th>
          <th className="w-20 text-right font-normal">it is this</th>
        </tr>
      </thead>
      <tbody>
        {segments.map(({ id, words, provenDownBps, suspicion }) => (
          <tr key={id} className="border-t border-hairline">
            <td className="relative max-w-0 py-1.5 pr-2">
              <span
                aria-hidden="true"
                className="absolute inset-y-1 left-0 bg-starved/25"
                style={{ width: `${Math.round(suspicion * 100)}%` }}
              />
              <span
                aria-hidden="true"
                className={`absolute inset-y-1 left-0 right-0 border-y-[1.5px] border-ink ${provenDownBps === null ? 'border-dashed opacity-40' : ''}`}
              />
              <span className="relative block truncate pl-2" title={words}>
                {words}
              </span>
            </td>
            <td className="figure px-2 text-right text-[0.8rem]">
              {provenDownBps === null ? <span className="text-quiet">nothing yet</span> : rateFigure(provenDownBps)}
            </td>
            <td className="figure text-right text-[0.8rem]">
              {suspicion < 0.005 ? <span className="text-quiet">cleared</span> : shareWords(suspicion)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
