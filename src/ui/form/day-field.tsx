'use client';

import { useRef } from 'react';
import { TextField } from './action-form';

interface DayFieldProps {
  readonly name: string;
  readonly label: string;
  readonly hint: string;
}

/** A day that can be typed as people write it, or picked from the browser's calendar. */
export function DayField({ name, label, hint }: DayFieldProps) {
  const frame = useRef<HTMLDivElement>(null);
  const picker = useRef<HTMLInputElement>(null);
  const take = (day: string) => {
    const typed = frame.current?.querySelector<HTMLInputElement>(`input[name="${name}"]`);
    if (!typed) return;
    typed.value = day;
    typed.dispatchEvent(new Event('input', { bubbles: true }));
    typed.focus();
  };
  return (
    <div ref={frame} className="relative">
      <TextField name={name} label={label} value="" hint={hint} />
      <button
        type="button"
        aria-label={`Pick a day: ${label}`}
        className="absolute right-1 top-6 grid size-9 place-items-center text-quiet hover:text-ink"
        onClick={() => picker.current?.showPicker?.()}
      >
        <svg viewBox="0 0 20 20" className="size-5" aria-hidden="true" fill="none" stroke="currentColor">
          <path d="M3.5 5.5h13v11h-13zM3.5 9h13M7 3v4M13 3v4" strokeWidth="1.3" />
        </svg>
      </button>
      <input
        ref={picker}
        type="date"
        tabIndex={-1}
        aria-hidden="true"
        className="pointer-events-none absolute right-1 top-8 size-0 opacity-0"
        onChange={(event) => take(event.target.value)}
      />
    </div>
  );
}
