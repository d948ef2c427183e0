'use client';

import { useId, useRef, useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { completionsAt, type KnownValues } from '@/core';

interface LedgerFieldProps {
  readonly label?: string;
  readonly placeholder?: string;
  readonly value: string;
  readonly known: KnownValues;
  /** Hears what was typed: when the typing rests, and at once with Enter. */
  readonly onQuery: (query: string) => void;
}

const REST_MS = 350;

/** Where the ledger is narrowed by typing: completed while one types. The key / leads here. */
export function LedgerField({
  label = 'Narrow the ledger',
  placeholder = 'type a name, or verdict=starved down<100 from=12.11.',
  value,
  known,
  onQuery,
}: LedgerFieldProps) {
  const listId = useId();
  const field = useRef<HTMLInputElement>(null);
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const [text, setText] = useState(value);
  const [caret, setCaret] = useState<number | null>(null);
  const [chosen, setChosen] = useState(-1);
  const { from, to, options } =
    caret === null ? { from: 0, to: 0, options: [] } : completionsAt(text, Math.min(caret, text.length), known);
  const open = options.length > 0;

  // What comes from elsewhere, a view or the way back, is shown; what was asked for from here is behind what is typed by now.
  const [asked, setAsked] = useState<readonly string[]>([value]);
  const place = asked.lastIndexOf(value);
  if (place !== 0) setAsked(place < 0 ? [value] : asked.slice(place));
  if (place < 0) setText(value);
  const ask = (query: string) => {
    clearTimeout(resting.current);
    setAsked((before) => [...before, query.trim()]);
    onQuery(query);
  };
  const type = (query: string, at: number) => {
    setText(query);
    setCaret(at);
    setChosen(-1);
    clearTimeout(resting.current);
    resting.current = setTimeout(() => ask(query), REST_MS);
  };
  const take = (option: (typeof options)[number]) => {
    // A field still wants its value; what is whole is followed by the next word.
    const whole = !/[=<>]$/.test(option.text);
    const rest = text.slice(to);
    const put = option.text + (whole && !rest.startsWith(' ') ? ' ' : '');
    // At once: set later, the caret would be moved under the hands of whoever types on.
    flushSync(() => type(text.slice(0, from) + put + rest, from + put.length));
    field.current?.focus();
    field.current?.setSelectionRange(from + put.length, from + put.length);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape') setCaret(null);
    else if (event.key === 'ArrowDown' && open) setChosen((chosen + 1) % options.length);
    else if (event.key === 'ArrowUp' && open) setChosen((chosen <= 0 ? options.length : chosen) - 1);
    else if (event.key === 'Tab' && open && chosen >= 0) take(options[chosen]!);
    else if (event.key === 'Enter') {
      if (chosen >= 0) take(options[chosen]!);
      else {
        setCaret(null);
        ask(text);
      }
    } else return;
    if (event.key !== 'Escape') event.preventDefault();
  };
  return (
    <div className="relative min-w-0 flex-1">
      <input
        ref={field}
        role="combobox"
        aria-label={label}
        aria-expanded={open}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={chosen >= 0 ? `${listId}-${chosen}` : undefined}
        aria-keyshortcuts="/"
        data-narrow="end"
        name="q"
        autoComplete="off"
        spellCheck={false}
        maxLength={1000}
        placeholder={placeholder}
        value={text}
        onChange={(event) => type(event.target.value, event.target.selectionStart ?? event.target.value.length)}
        onSelect={(event) => document.activeElement === event.target && setCaret(event.currentTarget.selectionStart)}
        onBlur={() => {
          setCaret(null);
          // Whoever goes on to a button has typed enough.
          if (!asked.includes(text.trim())) ask(text);
        }}
        onKeyDown={onKey}
        className="field figure !min-h-9 w-full !py-0 text-[0.85rem]"
      />
      <ul
        id={listId}
        role="listbox"
        aria-label="What may be meant"
        hidden={!open}
        className="absolute left-0 top-full z-20 mt-1 max-h-80 w-[min(30rem,90vw)] overflow-y-auto border border-ink bg-sheet py-1 shadow-[3px_3px_0_var(--hairline)]"
      >
        {options.map((option, index) => (
          <li
            key={option.text}
            id={`${listId}-${index}`}
            role="option"
            aria-selected={index === chosen}
            // The field keeps the focus.
            onMouseDown={(event) => {
              event.preventDefault();
              take(option);
            }}
            className="flex cursor-pointer items-baseline gap-4 px-3 py-1 text-sm hover:bg-paper aria-selected:bg-paper aria-selected:shadow-[inset_3px_0_0_var(--ink)]"
          >
            <span className="figure whitespace-nowrap text-[0.8rem]">{option.text}</span>
            <span className="truncate text-quiet">{option.about}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
