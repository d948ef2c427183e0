'use client';

import { useFormStatus } from 'react-dom';
import { durationWords } from '@/core';
import type { Board, TrayTurn } from '@/services';
import { WallTime } from '../parts/wall-time';
import { Link } from '../parts/link';

interface BoardTrayProps extends Pick<Board, 'tray' | 'nowMs'> {
  readonly withdraw: (turnId: string) => Promise<void>;
  /** All that wait, at once. */
  readonly withdrawAll: () => Promise<void>;
}

function StateWords({ turn, nowMs }: { readonly turn: TrayTurn; readonly nowMs: number }) {
  const { state } = turn;
  switch (state.status) {
    case 'running':
      return (
        <Link href={`/runs/${state.runId}`} className="underline decoration-hairline underline-offset-4">
          runs for {durationWords((nowMs - state.sinceMs) / 1000)}
        </Link>
      );
    case 'asked':
      return <span>is asked, begins in a moment</span>;
    case 'refused':
      return (
        <span className="text-ink">
          said not now, <WallTime atMs={state.atMs} />
        </span>
      );
    case 'waiting':
      return (
        <span>
          waits: {state.why}
          {state.aboutMs > 0 && <>, about {Math.round(state.aboutMs / 1000)} s</>}
        </span>
      );
  }
}

/** Takes a turn back; of one that runs the device is told to stop. */
function WithdrawButton({ turn: { deviceName, reach, state } }: { readonly turn: TrayTurn }) {
  const { pending } = useFormStatus();
  const runs = state.status === 'running';
  return (
    <button
      type="submit"
      disabled={pending}
      aria-label={runs ? `Stop the run of ${deviceName}, ${reach}` : `Withdraw the turn of ${deviceName}, ${reach}`}
      className="underline decoration-hairline underline-offset-4 hover:text-ink"
    >
      {runs ? 'stop' : 'withdraw'}
    </button>
  );
}

const MARKS: Record<TrayTurn['state']['status'], string> = {
  running: 'border-down bg-down',
  asked: 'border-down bg-paper',
  waiting: 'border-quiet bg-paper',
  refused: 'border-hairline bg-hairline',
};

/** The queue: what runs now, what waits, why and for how long. */
export function BoardTray({ tray, nowMs, withdraw, withdrawAll }: BoardTrayProps) {
  const waiting = tray.filter(({ state }) => state.status === 'waiting' || state.status === 'asked').length;
  return (
    <section
      aria-label="Queue"
      className="sticky bottom-0 z-[2] -mx-4 mt-6 md:-mx-6 max-h-[30vh] overflow-y-auto border-t border-hairline bg-paper"
    >
      <div className="px-6 py-2 text-sm text-quiet" role="status">
        {tray.length === 0 ? (
          'Nothing runs and nothing waits.'
        ) : (
          <ol className="space-y-1">
            {tray.map((turn) => (
              <li key={turn.turnId} className="flex items-baseline gap-2">
                <span
                  className={`inline-block size-2 shrink-0 rounded-full border ${MARKS[turn.state.status]}`}
                  aria-hidden="true"
                />
                <span className="max-w-[20rem] truncate text-ink">{turn.deviceName}</span>
                <span>
                  {turn.reach}, {turn.profile}
                  {turn.together && ', together'}
                </span>
                <StateWords turn={turn} nowMs={nowMs} />
                {turn.askedBy !== null && <span>· asked by {turn.askedBy}</span>}
                {turn.state.status !== 'refused' && (
                  <form action={withdraw.bind(null, turn.turnId)} className="ml-auto">
                    <WithdrawButton turn={turn} />
                  </form>
                )}
              </li>
            ))}
          </ol>
        )}
        {waiting > 1 && (
          <form action={withdrawAll} className="mt-1 text-right">
            <button type="submit" className="underline decoration-hairline underline-offset-4 hover:text-ink">
              withdraw all {waiting}
            </button>
          </form>
        )}
      </div>
    </section>
  );
}
