import { countWords, delayWords, linkKindWords, rateFigure } from '@/core';
import type { ImportLook } from '@/wire';
import { wallTimeWords } from '../parts/wall-time';

interface LookResultProps {
  readonly look: ImportLook;
  readonly timeZone: string | null;
  readonly nowMs: number;
}

const ms = (delay: number | null) => (delay === null ? '–' : delayWords(delay));

/** What becomes of the lines, as sentences. */
function sentencesOf({ lines, runs, withoutFigures, twice, known, strangers }: ImportLook): string[] {
  const are = (count: number, one: string, more: string) => (count === 1 ? one : more.replace('#', String(count)));
  return [
    `${countWords(lines, 'line')}: ${runs === 0 ? 'none of them is a run to bring in' : `${countWords(runs, 'run')} to bring in`}.`,
    ...(withoutFigures > 0
      ? [
          are(
            withoutFigures,
            'One line has no figure and is passed over.',
            '# lines have no figure and are passed over.',
          ),
        ]
      : []),
    ...(known > 0 ? [are(known, 'One is in the record already.', '# are in the record already.')] : []),
    ...(twice > 0
      ? [are(twice, 'One says the same as another one.', '# say the same as others in the file, and are taken once.')]
      : []),
    ...(runs > 0 && strangers.length > 0
      ? [
          `No ${strangers.length === 1 ? 'device' : 'devices'} of this office: ${strangers.slice(0, 5).join(', ')}${strangers.length > 5 ? ' and others' : ''}. Such runs are kept by the name alone.`,
        ]
      : []),
  ];
}

/** What the file would bring, read as it is now: in words, the first runs, and the lines that cannot be read. */
export function LookResult({ look, timeZone, nowMs }: LookResultProps) {
  const { samples, refused, refusedLines } = look;
  return (
    <>
      <p role="status">{sentencesOf(look).join(' ')}</p>
      {samples.length > 0 && (
        <div className="mt-2 overflow-x-auto">
          <table className="text-sm">
            <caption className="pb-1 text-left text-quiet">
              The first, as they are read (time at the office, Mb/s, ms)
            </caption>
            <thead className="text-left text-quiet">
              <tr>
                {['when', 'device', 'link', 'reach', 'down', 'up', 'idle', 'added'].map((name, at) => (
                  <th
                    key={name}
                    scope="col"
                    className={`border-b border-ink pr-5 font-normal ${at > 3 ? 'text-right' : ''}`}
                  >
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {samples.map(({ startedAt, device, linkKind, reach, downBps, upBps, idleMs, addedMs }, at) => (
                <tr key={at} className="border-b border-hairline">
                  <td className="figure whitespace-nowrap pr-5 text-[0.78rem]">
                    {wallTimeWords(Date.parse(startedAt), { timeZone, nowMs })}
                  </td>
                  <td className="max-w-56 truncate pr-5">{device}</td>
                  <td className="pr-5 text-quiet">{linkKindWords(linkKind)}</td>
                  <td className="pr-5 text-quiet">{reach}</td>
                  <td className="figure pr-5 text-right">{rateFigure(downBps)}</td>
                  <td className="figure pr-5 text-right">{rateFigure(upBps)}</td>
                  <td className="figure whitespace-nowrap pr-5 text-right text-[0.78rem]">{ms(idleMs)}</td>
                  <td className="figure whitespace-nowrap text-right text-[0.78rem]">{ms(addedMs)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {refused > 0 && (
        <details open className="mt-3">
          <summary className="font-semibold text-thin-words">{countWords(refused, 'line')} cannot be read</summary>
          <ul className="mt-1 max-h-56 overflow-y-auto text-sm">
            {refusedLines.map(({ line, words }, at) => (
              <li key={at} className="flex gap-3 py-0.5">
                <span className="figure w-16 shrink-0 text-right text-quiet">{line}</span>
                <span>{words}</span>
              </li>
            ))}
          </ul>
          {refused > refusedLines.length && (
            <p className="text-sm text-quiet">The first {refusedLines.length} of them.</p>
          )}
        </details>
      )}
    </>
  );
}
