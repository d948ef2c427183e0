import { REACH_PHRASES, type ProfileName } from '@/core';
import type { AskedToRun, Standing } from './use-standing';

const STANDING_WORDS: Record<Exclude<Standing['status'], 'off'>, string> = {
  reaching: 'Reaching the console …',
  standing: 'Standing by: the technician can start the next run from the console. Keep this page open.',
  elsewhere: 'This device stands by in another tab.',
};

/** Whether the console can reach this device now. */
export function StandingNote({
  standing,
  watching,
}: {
  readonly standing: Standing;
  readonly watching: string | null;
}) {
  if (standing.status === 'off') return null;
  return (
    <p role="status" className="mt-6 flex gap-3 border-t border-hairline pt-4 text-[0.9375rem] text-quiet">
      <span
        aria-hidden="true"
        className={`mt-1.5 size-2.5 shrink-0 rounded-full border-[1.5px] border-ink ${standing.status === 'standing' ? 'bg-ink' : ''}`}
      />
      <span>
        {STANDING_WORDS[standing.status]}
        {standing.status === 'standing' && watching !== null && ` ${watching}`}
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
  /** Begins at once. */
  readonly onAgree: () => void;
}

/** Somebody at the console wants this device to run: who, what, and the way to say no. */
export function AskedNote({ asked, profileWords, onRefuse, onAgree }: AskedNoteProps) {
  return (
    <section role="alert" className="mb-6 border-[1.5px] border-ink bg-sheet p-4">
      <h2 className="text-lg font-semibold">{asked.by} asks this device to measure</h2>
      <p className="mt-1 text-quiet">
        {REACH_PHRASES[asked.reach]}, {profileWords(asked.profile)}. Meanwhile the line is filled in both directions, so
        whoever uses it may notice. Nothing on this device is read or changed. It begins by itself in a few seconds.
      </p>
      <div className="mt-3 h-1 bg-hairline" aria-hidden="true">
        <div className="notice-runs-out h-1 bg-ink" style={{ animationDuration: `${asked.inMs}ms` }} />
      </div>
      <div className="mt-4 grid grid-cols-2 gap-3">
        <button
          type="button"
          onClick={onAgree}
          className="min-h-12 rounded-[3px] border-[1.5px] border-ink bg-ink px-4 text-paper hover:bg-down"
        >
          Begin now
        </button>
        <button
          type="button"
          onClick={onRefuse}
          className="min-h-12 rounded-[3px] border-[1.5px] border-quiet px-4 hover:border-ink"
        >
          Not now
        </button>
      </div>
    </section>
  );
}
