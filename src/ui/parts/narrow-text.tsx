'use client';

import { useEffect, useRef, useState } from 'react';

interface NarrowTextProps {
  readonly name: string;
  readonly label: string;
  readonly value: string | undefined;
  /** Hears what was typed, once the typing rests. */
  readonly onText: (text: string) => void;
}

const REST_MS = 250;

/** Narrows a list by what is typed. The key / leads here. */
export function NarrowText({ name, label, value, onText }: NarrowTextProps) {
  const [text, setText] = useState(value ?? '');
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  return (
    <label className="text-sm text-quiet">
      {label}
      <input
        name={name}
        value={text}
        data-narrow=""
        aria-keyshortcuts="/"
        autoComplete="off"
        maxLength={80}
        onChange={(event) => {
          setText(event.target.value);
          clearTimeout(timer.current);
          const typed = event.target.value;
          timer.current = setTimeout(() => onText(typed), REST_MS);
        }}
        className="field ml-2 !min-h-8 !w-40 !py-0"
      />
    </label>
  );
}
