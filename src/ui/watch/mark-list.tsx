'use client';

import { useRef, useState, useTransition } from 'react';
import { durationWords } from '@/core';
import type { ShownMark } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';

export interface MarkActions {
  readonly begin: (label: string) => Promise<string | null>;
  readonly end: (id: string) => Promise<string | null>;
  readonly remove: (id: string) => Promise<string | null>;
}

interface MarkListProps extends MarkActions {
  readonly marks: readonly ShownMark[];
  readonly nowMs: number;
  readonly timeZone: string;
  readonly onDone: () => void;
}

function MarkEffects({ effects }: Pick<ShownMark, 'effects'>) {
  const alike = effects.filter(({ differs }) => !differs).map(({ laneName }) => laneName);
  return (
    <ul className="text-sm">
      {effects
        .filter(({ differs }) => differs)
        .map(({ laneName, sentence }) => (
          <li key={laneName} className="break-words">
            {laneName}: {sentence}
          </li>
        ))}
      {alike.length > 0 && (
        <li className="break-words text-quiet">No difference that can be told: {alike.join(', ')}</li>
      )}
    </ul>
  );
}

/** Writes down that something begins and ends, and says what it did to the lanes. */
export function MarkList({ marks, nowMs, timeZone, begin, end, remove, onDone }: MarkListProps) {
  const [label, setLabel] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  const field = useRef<HTMLInputElement>(null);
  const does = (act: () => Promise<string | null>, then?: () => void) =>
    start(async () => {
      const said = await act();
      setRefused(said);
      if (said !== null) return;
      then?.();
      onDone();
    });
  const clock = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, weekday: 'short', hour: '2-digit', minute: '2-digit', second: '2-digit' },
  });
  return (
    <div aria-busy={working}>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          does(
            () => begin(label),
            () => setLabel(''),
          );
        }}
      >
        <label className="text-sm">
          <span className="block text-quiet">something begins, such as “heater on”</span>
          <input
            ref={field}
            data-mark
            value={label}
            onChange={({ target }) => setLabel(target.value)}
            className="field !min-h-9 w-64"
            autoComplete="off"
          />
        </label>
        <Button type="submit" disabled={working || label.trim() === ''}>
          It begins
        </Button>
        <RefusedNote refused={refused} />
      </form>
      <ul className="mt-2">
        {marks.map(({ id, label: name, fromMs, untilMs, effects, byName }) => (
          <li key={id} className="border-t border-hairline py-1.5">
            <span className="break-words font-medium">{name}</span>{' '}
            <span className="text-sm text-quiet">
              {clock.format(fromMs)},{' '}
              {untilMs === null
                ? `goes on since ${durationWords((nowMs - fromMs) / 1000)}`
                : durationWords((untilMs - fromMs) / 1000)}
              , by {byName}
            </span>{' '}
            {untilMs === null ? (
              <Button className="!min-h-8 text-sm" disabled={working} onClick={() => does(() => end(id))}>
                It is over
              </Button>
            ) : (
              <Button
                look="quiet"
                className="!min-h-7 text-sm"
                disabled={working}
                onClick={() => does(() => remove(id))}
              >
                remove
              </Button>
            )}
            <MarkEffects effects={effects} />
          </li>
        ))}
      </ul>
    </div>
  );
}
