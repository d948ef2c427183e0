import { rateFigure, SWAP_WORDS } from '@/core';
import type { ShownSwap } from '@/services';

function verdictWords({ deviceName, comparison, runsBefore, runsAfter }: NonNullable<ShownSwap['compared']>): string {
  const occasions = `${deviceName}, ${runsBefore} before, ${runsAfter} after`;
  if (comparison.status === 'too-few')
    return `too few to be sure (${occasions}); ${comparison.moreWanted} more would tell`;
  if (!comparison.real) return `no real difference (${occasions})`;
  return `a real difference (${occasions})`;
}

function afterOf({ runIds, runIdsBefore }: NonNullable<ShownSwap['compared']>): string[] {
  const before = new Set(runIdsBefore);
  return runIds.filter((id) => !before.has(id));
}

interface SwapResultsProps {
  readonly swaps: readonly ShownSwap[];
  readonly undo: (swapId: string) => Promise<void>;
  /** Holds the runs before and after one side by side; absent: there is no way there. */
  readonly compare?: (before: readonly string[], after: readonly string[]) => Promise<void>;
}

/** What each swap did: before, after, and whether that is real. */
export function SwapResults({ swaps, undo, compare }: SwapResultsProps) {
  if (swaps.length === 0) return null;
  return (
    <section aria-label="What the swaps did">
      <h2 className="mb-1 font-semibold">What the swaps did</h2>
      <ul className="text-[0.9rem]">
        {swaps.map((swap) => (
          <li key={swap.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-hairline py-1">
            <span className="min-w-0 flex-1 break-words">
              {SWAP_WORDS[swap.what]}, {swap.words}
              {swap.note !== '' && <span className="text-quiet"> ({swap.note})</span>}:{' '}
              {swap.compared === null ? (
                <span className="text-quiet">nothing to compare yet, measure once more</span>
              ) : (
                <>
                  <span className="figure text-[0.85em]">{rateFigure(swap.compared.beforeBps)}</span> →{' '}
                  <span className="figure font-semibold">{rateFigure(swap.compared.afterBps)}</span> Mb/s{' '}
                  {swap.compared.direction}, {verdictWords(swap.compared)}
                </>
              )}
            </span>
            {compare !== undefined && swap.compared !== null && (
              <form action={compare.bind(...([null, swap.compared.runIdsBefore, afterOf(swap.compared)] as const))}>
                <button
                  type="submit"
                  className="text-sm underline decoration-hairline underline-offset-4 hover:decoration-ink"
                >
                  side by side
                </button>
              </form>
            )}
            <form action={undo.bind(null, swap.id)}>
              <button
                type="submit"
                className="text-sm text-quiet underline decoration-hairline underline-offset-4 hover:text-ink"
              >
                take it back
              </button>
            </form>
          </li>
        ))}
      </ul>
    </section>
  );
}
