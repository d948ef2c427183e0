'use client';

import { useState } from 'react';
import { SWAP_WORDS, type SwapCode } from '@/core';
import type { HuntPage } from '@/services';
import { Button } from '../parts/button';

export type NoteSwap = (swap: {
  readonly what: SwapCode;
  readonly segmentId: string;
  readonly deviceId: string | null;
  readonly note: string;
}) => Promise<string | null>;

interface SwapFormProps {
  readonly places: HuntPage['places'];
  readonly noteSwap: NoteSwap;
}

/** Writes down what was changed: where, what, and a word about it. */
export function SwapForm({ places, noteSwap }: SwapFormProps) {
  const [place, setPlace] = useState(0);
  const [what, setWhat] = useState<SwapCode | ''>('');
  const [note, setNote] = useState('');
  const [said, setSaid] = useState<{ readonly words: string; readonly bad: boolean } | null>(null);
  const chosen = places[place];
  if (chosen === undefined) return null;
  const kind = what === '' ? chosen.kinds[0]! : what;
  const save = async () => {
    const refused = await noteSwap({ what: kind, segmentId: chosen.segmentId, deviceId: chosen.deviceId, note });
    setSaid(
      refused === null ? { words: 'Written down. Measure again now.', bad: false } : { words: refused, bad: true },
    );
    if (refused === null) setNote('');
  };
  return (
    <form
      aria-label="Write down a swap"
      className="grid items-end gap-x-4 gap-y-2 sm:grid-cols-[1.7fr_1.2fr_1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <label className="min-w-0 text-sm text-quiet">
        where
        <select
          className="field text-ink"
          value={place}
          onChange={(event) => {
            setPlace(Number(event.target.value));
            setWhat('');
          }}
        >
          {places.map(({ segmentId, words }, index) => (
            <option key={segmentId} value={index}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <label className="min-w-0 text-sm text-quiet">
        what was changed
        <select className="field text-ink" value={kind} onChange={(event) => setWhat(event.target.value as SwapCode)}>
          {[...chosen.kinds, 'other' as const].map((code) => (
            <option key={code} value={code}>
              {SWAP_WORDS[code]}
            </option>
          ))}
        </select>
      </label>
      <label className="min-w-0 text-sm text-quiet">
        a word about it
        <input
          className="field text-ink"
          value={note}
          maxLength={300}
          placeholder="port 7 instead of 3"
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      <Button type="submit">Swapped</Button>
      {said !== null && (
        <p
          role={said.bad ? 'alert' : 'status'}
          className={`text-sm sm:col-span-4 ${said.bad ? 'text-starved' : 'text-quiet'}`}
        >
          {said.words}
        </p>
      )}
    </form>
  );
}
