import type { ProfileName, Reach } from '@/core';
import type { AskedToRun, Standing } from './use-standing';

const STANDING_WORDS: Record<Exclude<Standing['status'], 'off'>, string> = {
  reaching: 'Reaching the console …',
  standing: 'Standing by: the technician can start the next run from the console. Keep this page open.',
  elsewhere: 'This device stands by in another tab.',
};

const REACH_WORDS: Record<Reach, string> = {
  internet: 'out to the internet',
  local: 'inside the office only',
  tunnel: 'through the tunnel',
};

/** Whether the console can reach this device now. */
export function StandingNote({ standing }: { readonly standing: Standing }) {
  if (standing.status === 'off') return null;
  return (
    <p role="status" className="mt-6 flex gap-3 border-t border-hairline pt-4 text-[0.9375rem] text-quiet">
      <span
        aria-hidden="true"
        className={`mt-1.5 size-2.5 shrink-0 rounded-full border-[1.5px] border-ink ${standing.status === 'standing' ? 'bg-ink' : ''}`}
      />
      <span>
        {STANDING_WORDS[standing.status]}
        {standing.status === 'standing' && !isSecureContext && (
          <>
            {' '}
            The screen may go dark: only by{' '}
            <a href="/trust" className="text-ink underline">
              https
            </a>{' '}
            can a page keep it awake.
          </>
        )}
      </span>
    </p>
  );
}

interface AskedNoteProps {
  readonly asked: AskedToRun;
  readonly profileWords: (profile: ProfileName) => string;
  readonly onRefuse: () => void;
}

/** Somebody at the console wants this device to run: who, what, and the way to say no. */
export function AskedNote({ asked, profileWords, onRefuse }: AskedNoteProps) {
  return (
    <section role="alert" className="mb-6 border-[1.5px] border-ink bg-sheet p-4">
      <h2 className="text-lg font-semibold">{asked.by} asks this device to measure</h2>
      <p className="mt-1 text-quiet">
        {REACH_WORDS[asked.reach]}, {profileWords(asked.profile)}. It begins in a few seconds.
      </p>
      <div className="mt-3 h-1 bg-hairline" aria-hidden="true">
        <div className="notice-runs-out h-1 bg-ink" style={{ animationDuration: `${asked.inMs}ms` }} />
      </div>
      <button
        type="button"
        onClick={onRefuse}
        className="mt-4 min-h-12 w-full rounded-[3px] border-[1.5px] border-quiet px-4 hover:border-ink"
      >
        Not now
      </button>
    </section>
  );
}
