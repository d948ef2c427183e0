import { delayFigure, type DelaySummary } from '@/core';

interface RunDelayTableProps {
  /** What the line was doing, and the delay meanwhile. */
  readonly delays: readonly (readonly [string, DelaySummary | null])[];
  /** Smallest step of the client's clock, ms; null: not known. */
  readonly clockStepMs: number | null;
}

const COLUMNS: readonly (readonly [string, string, (delay: DelaySummary) => number | null])[] = [
  ['min', 'least round trip', ({ minMs }) => minMs],
  ['median', 'median round trip', ({ medianMs }) => medianMs],
  ['p95', '95th percentile', ({ p95Ms }) => p95Ms],
  ['max', 'longest round trip', ({ maxMs }) => maxMs],
  ['jitter', 'mean difference of successive round trips', ({ jitterMs }) => jitterMs],
  [
    'variation',
    'delay variation, RFC 5481: p99 less the minimum, p95 under 200 probes',
    ({ variationMs }) => variationMs,
  ],
];

/** Round trips in ms, by what the line was doing. */
export function RunDelayTable({ delays, clockStepMs }: RunDelayTableProps) {
  return (
    <table className="mt-5 w-full border-collapse text-[0.9rem]">
      <caption className="pb-1 text-left text-quiet">
        <span className="mr-2 inline-block w-4 border-b-2 border-dotted border-delay align-middle" aria-hidden="true" />
        delay there and back, ms
        {clockStepMs !== null && clockStepMs >= 0.5 && (
          <>
            {' '}
            · the clock of this browser goes in steps of {Number(clockStepMs.toFixed(1))} ms, so it tells nothing below
          </>
        )}
      </caption>
      <thead>
        <tr className="border-b-[1.5px] border-ink text-right text-quiet">
          <th className="py-1 text-left font-normal">
            <span className="sr-only">while</span>
          </th>
          {COLUMNS.map(([name, meaning]) => (
            <th key={name} className="py-1 pl-2 font-normal">
              <abbr title={meaning} className="no-underline">
                {name}
              </abbr>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {delays.map(([load, delay]) => (
          <tr key={load} className="border-b border-hairline">
            <th scope="row" className="py-1 text-left font-normal text-quiet">
              {load}
            </th>
            {delay === null ? (
              <td colSpan={COLUMNS.length} className="py-1 text-right text-quiet">
                not measured
              </td>
            ) : (
              COLUMNS.map(([name, , figure]) => (
                <td key={name} className="figure py-1 pl-2 text-right">
                  {delayFigure(figure(delay), clockStepMs)}
                </td>
              ))
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
