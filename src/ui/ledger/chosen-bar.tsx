'use client';

import { useState, useTransition, type FormEvent } from 'react';
import { EXPORT_FORMATS } from '@/wire';
import { Button } from '../parts/button';
import { typedIn } from '../form/typed-in';
import { ChosenPicture } from './chosen-picture';
import type { DrawnRun } from './drawn-run';

/** What can be done with the runs that are chosen. Each answers with what stands in the way, or null. */
export interface ChosenActions {
  readonly tag: (runIds: readonly string[], tag: string, on: boolean) => Promise<string | null>;
  readonly note: (runIds: readonly string[], note: string) => Promise<string | null>;
  readonly leaveOut: (runIds: readonly string[], reason: string | null) => Promise<string | null>;
  readonly remove: (runIds: readonly string[]) => Promise<string | null>;
}

type Asking = 'tag' | 'note' | 'leave-out';
const ASKED: Readonly<Record<Asking, { readonly label: string; readonly does: string; readonly max: number }>> = {
  tag: { label: 'One word', does: 'Put it on', max: 40 },
  note: { label: 'A line beside each', does: 'Write it', max: 500 },
  'leave-out': { label: 'Why they do not count', does: 'Leave out', max: 300 },
};

interface ChosenBarProps {
  readonly ids: ReadonlySet<string>;
  /** How many match in all; more of them can be chosen at once. */
  readonly count: number;
  readonly isMore: boolean;
  readonly chooseAll: () => void;
  readonly clear: () => void;
  readonly actions: ChosenActions;
  readonly siteId: string;
  /** Those of the chosen that were looked at. */
  readonly runs: readonly DrawnRun[];
  /** Puts the chosen runs into a tray. */
  readonly toTray: (letter: 'A' | 'B') => void;
}

/** Stands at the foot of the ledger while runs are chosen. */
export function ChosenBar({ ids, count, isMore, chooseAll, clear, actions, siteId, runs, toTray }: ChosenBarProps) {
  const [asking, setAsking] = useState<Asking | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  if (ids.size === 0) return null;
  const all = [...ids];
  const done = (act: () => Promise<string | null>, after?: () => void) =>
    start(async () => {
      const stands = await act();
      setRefused(stands);
      if (stands !== null) return;
      setAsking(null);
      after?.();
    });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const text = typedIn(event.currentTarget, 'text');
    if (asking === 'tag') done(() => actions.tag(all, text, true));
    else if (asking === 'note') done(() => actions.note(all, text));
    else done(() => actions.leaveOut(all, text));
  };
  const open = (what: Asking) => () => {
    setRefused(null);
    setAsking((before) => (before === what ? null : what));
  };
  return (
    <section
      aria-label="Chosen runs"
      aria-busy={working}
      className="sticky bottom-0 z-[4] -mx-2 flex flex-wrap items-center gap-x-2 gap-y-1 border border-ink bg-sheet px-4 py-2 text-sm shadow-[0_-3px_0_var(--hairline)]"
    >
      <ChosenPicture runs={runs} chosen={ids.size} />
      <span role="status" className="mr-2">
        <span className="figure">{ids.size}</span> {ids.size === 1 ? 'run' : 'runs'} chosen
      </span>
      {ids.size < count && (
        <Button look="quiet" className="!min-h-8 !px-1 text-sm" onClick={chooseAll}>
          choose all {isMore ? 'of the newest 10 000' : count}
        </Button>
      )}
      {(['A', 'B'] as const).map((letter) => (
        <Button
          key={letter}
          className="!min-h-8 text-sm"
          title="two trays are held side by side"
          onClick={() => toTray(letter)}
        >
          Into tray {letter}
        </Button>
      ))}
      <Button className="!min-h-8 text-sm" aria-expanded={asking === 'tag'} onClick={open('tag')}>
        Tag
      </Button>
      <Button className="!min-h-8 text-sm" aria-expanded={asking === 'note'} onClick={open('note')}>
        Note
      </Button>
      <Button className="!min-h-8 text-sm" aria-expanded={asking === 'leave-out'} onClick={open('leave-out')}>
        Leave out
      </Button>
      <Button className="!min-h-8 text-sm" onClick={() => done(() => actions.leaveOut(all, null))}>
        Count again
      </Button>
      <Button className="!min-h-8 text-sm" onClick={() => done(() => actions.remove(all), clear)}>
        Remove
      </Button>
      <form method="post" action="/api/v1/runs/export" className="flex items-center gap-1">
        <input type="hidden" name="siteId" value={siteId} />
        <input type="hidden" name="runIds" value={all.join(',')} />
        <span className="text-quiet">as</span>
        {EXPORT_FORMATS.map((format) => (
          <button
            key={format}
            type="submit"
            name="format"
            value={format}
            className="min-h-8 px-0.5 underline decoration-hairline underline-offset-4 hover:decoration-ink"
          >
            {format.toUpperCase()}
          </button>
        ))}
      </form>
      <Button look="quiet" className="!min-h-8 !px-1 text-sm" onClick={clear}>
        choose none
      </Button>
      {asking !== null && (
        <form onSubmit={submit} className="flex w-full flex-wrap items-center gap-2 pt-1">
          <label className="flex min-w-0 flex-1 items-center gap-2">
            <span className="text-quiet">{ASKED[asking].label}</span>
            <input
              // Another question, another field.
              key={asking}
              // It stands at the foot of the window, wherever the foot of the page is.
              ref={(field) => field?.focus({ preventScroll: true })}
              name="text"
              required
              maxLength={ASKED[asking].max}
              className="field !min-h-8 flex-1 !py-0"
            />
          </label>
          <Button type="submit" look="main" className="!min-h-8 text-sm" disabled={working}>
            {ASKED[asking].does}
          </Button>
        </form>
      )}
      {refused !== null && (
        <p role="alert" className="w-full font-medium text-starved">
          {refused}
        </p>
      )}
    </section>
  );
}
