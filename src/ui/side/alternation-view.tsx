'use client';

import { nextStep, sideAt } from '@/core';
import type { StoredAlternation } from '@/services';
import { FollowChanges } from '../board/follow-changes';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs, type Act } from '../parts/use-acts';
import { Link } from '../parts/link';

interface AlternationViewProps {
  readonly of: StoredAlternation;
  /** Whether the device whose turn it is stands by. */
  readonly present: boolean;
  readonly deviceName: string;
  readonly ready: Act;
  readonly goOn: Act;
  readonly stop: Act;
}

const HELD: Readonly<Record<NonNullable<StoredAlternation['why']>, string>> = {
  refused: 'Whoever sits at the device said not now.',
  withdrawn: 'The turn was taken out of the queue.',
  unfinished: 'The last run brought no result; the ledger says why.',
  'refused-here': 'No run can be made that far now: look at the far ends in the set-up.',
};

/** What there is to do now, in a sentence. */
function nowWords({ of, present, deviceName }: Pick<AlternationViewProps, 'of' | 'present' | 'deviceName'>): string {
  if (of.state === 'done') return 'Done: both have been measured as often as was wanted.';
  if (of.state === 'stopped') return 'Stopped.';
  if (of.state === 'held') return of.why === null ? 'Held.' : HELD[of.why];
  const step = nextStep(of);
  if (step.kind === 'hands')
    return `Now make it so: ${of.sides[step.side].name}. Where that changes the link, say so on the page of ${deviceName} too: its runs are recorded with what stands there.`;
  if (step.kind === 'done') return 'Done.';
  return present
    ? `${deviceName} is asked, and measures in its turn.`
    : `Waiting for ${deviceName}: let it stand by, with its page open.`;
}

/** Two things that are measured turn and turn about: how far it is, and what hands have to do. */
export function AlternationView({ of, present, deviceName, ready, goOn, stop }: AlternationViewProps) {
  const { working, refused, does } = useActs();
  const made = of.runs[0].length + of.runs[1].length;
  const open = of.state === 'going' || of.state === 'held';
  const waitsForHands = of.state === 'going' && of.turnId === null && nextStep(of).kind === 'hands';
  return (
    <div aria-busy={working}>
      {open && <FollowChanges />}
      <p className="text-sm">
        <Link href="/side" className="underline decoration-hairline underline-offset-4">
          Side by side
        </Link>
      </p>
      <h1 className="max-w-[48rem] break-words text-xl font-semibold">
        {of.sides[0].name} and {of.sides[1].name}, turn and turn about
      </h1>
      <ol className="mt-4 flex flex-wrap gap-x-1 gap-y-1" aria-label="Turns">
        {Array.from({ length: 2 * of.times }, (_, place) => {
          const side = sideAt(place, of.byHand);
          const state = place < made ? 'measured' : place === made && open ? 'now' : 'to come';
          return (
            <li
              key={place}
              aria-label={`${of.sides[side].name}, ${state}`}
              className={`grid h-9 w-8 place-items-center border-[1.5px] text-sm ${state === 'measured' ? (side === 0 ? 'border-down bg-down text-paper' : 'border-up bg-up text-paper') : state === 'now' ? 'border-ink font-semibold' : 'border-dashed border-hairline text-quiet'}`}
            >
              {'AB'[side]}
            </li>
          );
        })}
      </ol>
      <p className="mt-1 text-sm text-quiet">
        A: {of.sides[0].name}, {of.runs[0].length} of {of.times}. B: {of.sides[1].name}, {of.runs[1].length} of{' '}
        {of.times}. {of.reach}, {of.profile}.
      </p>
      <p role="status" className="mt-5 max-w-[44rem] text-[1.15rem] leading-snug">
        {nowWords({ of, present, deviceName })}
      </p>
      <RefusedNote refused={refused} />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        {waitsForHands && (
          <Button look="main" className="max-sm:!min-h-14 max-sm:w-full" disabled={working} onClick={does(ready)}>
            It is so: measure
          </Button>
        )}
        {of.state === 'held' && (
          <Button look="main" disabled={working} onClick={does(goOn)}>
            Take that turn once more
          </Button>
        )}
        {of.comparisonId !== null && (
          <Link
            href={`/side/${of.comparisonId}`}
            className="inline-flex min-h-9 items-center rounded-[3px] border-[1.5px] border-ink bg-ink px-3 text-paper hover:border-down hover:bg-down"
          >
            Hold them side by side
          </Link>
        )}
        {open && (
          <Button look="quiet" className="!px-1" disabled={working} onClick={does(stop)}>
            Stop it
          </Button>
        )}
      </div>
    </div>
  );
}
