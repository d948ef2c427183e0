import { addedDelayWords, agoWords, rateFigure, shareWords } from '@/core';
import type { OfficeGlance } from '@/services';
import { VerdictMark } from '../verdict/verdict-mark';

const HEADS = ['office', 'down / up', 'plan met', 'under load', 'agents', 'what stands out', 'newest'] as const;

interface OfficeTableProps {
  readonly offices: readonly OfficeGlance[];
  readonly nowMs: number;
  readonly open: (siteId: string) => Promise<void>;
}

function Agents({ silentAgents }: OfficeGlance) {
  const [first, ...others] = silentAgents;
  if (first === undefined) return <span className="text-quiet">–</span>;
  return (
    <span className="font-medium text-starved">
      {others.length === 0 ? `${first} is silent` : `${silentAgents.length} are silent`}
    </span>
  );
}

/** All offices at a glance, a line each. */
export function OfficeTable({ offices, nowMs, open }: OfficeTableProps) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[56rem] text-sm" aria-label="All offices at a glance">
        <thead className="text-left text-quiet">
          <tr>
            {HEADS.map((head) => (
              <th key={head} scope="col" className="pr-4 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {offices.map((of) => (
            <tr key={of.siteId} className="border-t border-hairline align-top">
              <th scope="row" className="max-w-64 py-1.5 pr-4 text-left font-medium">
                <form action={open.bind(null, of.siteId)}>
                  <button
                    type="submit"
                    className="break-words text-left underline decoration-hairline underline-offset-4 hover:decoration-ink"
                  >
                    {of.name}
                  </button>
                </form>
              </th>
              <td className="whitespace-nowrap py-1.5 pr-4">
                <span className="inline-flex items-center gap-2">
                  <VerdictMark verdict={of.verdict} />
                  {of.downBps === null && of.upBps === null ? (
                    <span className="text-quiet">not measured</span>
                  ) : (
                    <span className="figure text-[0.8rem]">
                      {rateFigure(of.downBps)} / {rateFigure(of.upBps)}
                    </span>
                  )}
                </span>
              </td>
              <td className="figure whitespace-nowrap py-1.5 pr-4 text-[0.8rem]">
                {of.planShare === null ? (
                  <span className="text-quiet">cannot tell</span>
                ) : (
                  <span className={of.planShare < 0.9 ? 'text-starved' : ''}>
                    {shareWords(of.planShare)} of {of.occasions}
                  </span>
                )}
              </td>
              <td className="whitespace-nowrap py-1.5 pr-4">
                {of.addedMs === null ? (
                  <span className="text-quiet">–</span>
                ) : (
                  <>
                    <span className="figure text-[0.8rem] text-delay">{addedDelayWords(of.addedMs)}</span>{' '}
                    <span className="text-quiet">{of.rating}</span>
                  </>
                )}
              </td>
              <td className="whitespace-nowrap py-1.5 pr-4">
                <Agents {...of} />
                {of.budgetShare !== null && of.budgetShare >= 0.8 && (
                  <span className="block text-starved">{shareWords(of.budgetShare)} of the data volume</span>
                )}
              </td>
              <td className="min-w-60 py-1.5 pr-4">
                {of.findings.first === null ? (
                  <span className="text-quiet">nothing</span>
                ) : (
                  <>
                    {of.findings.first}
                    {of.findings.count > 1 && <span className="text-quiet"> and {of.findings.count - 1} more</span>}
                  </>
                )}
              </td>
              <td className="whitespace-nowrap py-1.5 text-quiet">
                {of.newestAtMs === null ? 'never' : agoWords(nowMs - of.newestAtMs)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
