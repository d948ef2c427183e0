import type { Board } from '@/services';
import { ageWords } from '@/core';

/** What runs now. */
export function BoardTray({ running, nowMs }: Pick<Board, 'running' | 'nowMs'>) {
  return (
    <footer className="fixed inset-x-0 bottom-0 border-t border-hairline bg-paper">
      <p className="mx-auto max-w-[86rem] px-6 py-2 text-sm text-quiet" role="status">
        {running.length === 0
          ? 'Nothing runs. A device that has joined starts a run from its own page.'
          : running.map((run) => (
              <span key={run.runId} className="mr-6">
                <span className="mr-1.5 inline-block size-2 rounded-full bg-down" aria-hidden="true" />
                <span className="text-ink">{run.deviceName}</span> measures against {run.peerName}, since{' '}
                {ageWords(nowMs - run.startedAtMs)}
              </span>
            ))}
      </p>
    </footer>
  );
}
