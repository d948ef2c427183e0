'use client';

import { useState } from 'react';
import { Button } from '../parts/button';

type End = 'found' | 'mended' | 'given-up';

interface EndHuntFormProps {
  readonly end: (state: End, note: string) => Promise<string | null>;
  readonly addNote: (text: string) => Promise<string | null>;
}

/** A line for the story, and the three ways in which a hunt ends. */
export function EndHuntForm({ end, addNote }: EndHuntFormProps) {
  const [text, setText] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const act = async (deed: () => Promise<string | null>) => {
    const refused = await deed();
    setSaid(refused);
    if (refused === null) setText('');
  };
  return (
    <form
      aria-label="Write into the story"
      className="flex flex-wrap items-end gap-x-4 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void act(() => addNote(text));
      }}
    >
      <label className="min-w-56 flex-1 text-sm text-quiet">
        a line for the story
        <input
          className="field text-ink"
          value={text}
          maxLength={300}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <Button type="submit">Write</Button>
      <span className="flex flex-wrap gap-3">
        <Button onClick={() => void act(() => end('found', text))}>Found</Button>
        <Button onClick={() => void act(() => end('mended', text))}>Mended</Button>
        <Button onClick={() => void act(() => end('given-up', text))}>Give up</Button>
      </span>
      {said !== null && (
        <p role="alert" className="basis-full text-sm text-starved">
          {said}
        </p>
      )}
    </form>
  );
}
