import type { ReactNode } from 'react';
import { durationWords, expectedRunMs, RUN_PROFILES, type Phase } from '@/core';
import type { SessionState } from '@/session';
import { Strip } from '../strip/strip';
import { RunResult } from './run-result';

const PHASE_SENTENCES: Record<Phase, string> = {
  idle: 'Listening to the delay of the quiet line.',
  download: 'Downloading, and watching the delay.',
  settle: 'Waiting until the line is quiet again.',
  upload: 'Uploading, and watching the delay.',
  paced: 'Sending UDP at a chosen rate.',
  both: 'Downloading and uploading at once, and watching the delay.',
};

type Going = Extract<SessionState, { status: 'measuring' | 'handing-in' }>;

/** "about 40 s in all": told as soon as the delay of the empty line is known. */
function lastsWords({ grant, strip }: Going): string {
  const expectedMs = expectedRunMs(RUN_PROFILES[grant.profile], strip?.idleMedianMs ?? null);
  const longest = Math.max(expectedMs, 2 * grant.leastDirectionMs);
  const why = grant.leastDirectionMs > 0 ? 'a long look, to see whether the line is fast only at first; ' : '';
  return `${why}about ${durationWords(longest / 1000)} in all`;
}

function headline(view: Going): string {
  if (view.status === 'measuring') {
    const phase = view.strip?.phases.at(-1)?.phase;
    return phase === undefined ? 'Reaching the peer.' : PHASE_SENTENCES[phase];
  }
  if (view.away === null) return 'Measured. Handing the result in.';
  return view.kept
    ? 'Measured. The console is not answering; the result is kept on this device and handed in as soon as it is back.'
    : 'Measured. The console is not answering, and this browser keeps nothing: leave this page open until it is back.';
}

/** A run while it goes on; `children`: what can be done about it. */
export function GoingRun({ view, children }: { readonly view: Going; readonly children: ReactNode }) {
  return (
    <section>
      <h1 className="min-h-14 text-xl font-semibold" aria-live="polite">
        {headline(view)}
      </h1>
      <div className="-mx-3 mt-2 border-y border-hairline">
        {view.strip === null ? (
          <div className="h-[21rem] bg-sheet" />
        ) : (
          <Strip data={view.strip} yardsticks={view.grant.yardstick} width={360} height={340} />
        )}
      </div>
      <p className="mt-3 text-sm text-quiet">
        {view.grant.deviceName} against {view.grant.peer.name}
        {view.status === 'measuring' && `, ${lastsWords(view)}`}
      </p>
      {children}
    </section>
  );
}

/** A run that was handed in: what came out, and its picture. */
export function EndedRun({ view }: { readonly view: Extract<SessionState, { status: 'done' }> }) {
  return (
    <>
      <RunResult answer={view.answer} />
      {view.strip !== null && (
        <div className="-mx-3 mt-6 border-y border-hairline">
          <Strip data={view.strip} yardsticks={view.grant.yardstick} width={360} height={320} />
        </div>
      )}
      <p className="mt-2 text-sm text-quiet">
        {view.grant.deviceName} against {view.grant.peer.name}
      </p>
    </>
  );
}
