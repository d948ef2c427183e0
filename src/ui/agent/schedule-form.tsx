'use client';

import { useEffect, useId, useState, useTransition } from 'react';
import { minutesOfDay, readSchedule, scheduleWords } from '@/core';
import { Button } from '../parts/button';
import { volumeWords, type ScheduleVolume } from './schedule-volume';
import { WeekOfTimes } from './week-of-times';

const USUAL = 'every 20 minutes from 7 to 19, Monday to Friday, internet, quick';
const ASK_AFTER_MS = 350;

interface ScheduleFormProps {
  /** Value and words of whom it can be for. */
  readonly who: readonly (readonly [string, string])[];
  readonly estimate: (sentence: string, who: string) => Promise<ScheduleVolume | null>;
  /** What stands in the way; null: it is made. */
  readonly make: (sentence: string, who: string, spreadMinutes: number) => Promise<string | null>;
}

/** When to measure without a person, in one sentence that is read while it is typed. */
export function ScheduleForm({ who, estimate, make }: ScheduleFormProps) {
  const [sentence, setSentence] = useState(USUAL);
  const [whom, setWhom] = useState(who[0]?.[0] ?? 'office');
  const [spread, setSpread] = useState('2');
  const [volume, setVolume] = useState<ScheduleVolume | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  const id = useId();
  const read = readSchedule(sentence);
  const words = read.ok ? scheduleWords(read.schedule) : null;
  useEffect(() => {
    if (words === null) return;
    let over = false;
    const timer = setTimeout(() => {
      void estimate(words, whom).then((found) => {
        if (!over) setVolume(found);
      });
    }, ASK_AFTER_MS);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [words, whom, estimate]);
  const spreadMinutes = Number(spread.replace(',', '.'));
  const isSpread = spread.trim() !== '' && spreadMinutes >= 0 && spreadMinutes <= 60;

  return (
    <form
      aria-label="New schedule"
      aria-busy={working}
      onSubmit={(event) => {
        event.preventDefault();
        if (!read.ok || !isSpread) return;
        start(async () => setRefused(await make(sentence, whom, spreadMinutes)));
      }}
    >
      <label htmlFor={`${id}-when`} className="block text-sm text-quiet">
        when, how far, how thoroughly: in a sentence
      </label>
      <input
        id={`${id}-when`}
        value={sentence}
        onChange={({ target }) => setSentence(target.value)}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={!read.ok}
        aria-describedby={`${id}-read`}
        className="field w-full max-w-[44rem]"
      />
      <div id={`${id}-read`} aria-live="polite" className="mt-1 min-h-6 text-sm">
        {read.ok ? (
          <span className="text-quiet">Read as: {words}.</span>
        ) : (
          read.faults.map((fault) => (
            <p key={fault.text} className="text-starved">
              {fault.text === sentence || fault.text === '' ? '' : `“${fault.text}”: `}
              {fault.sentence}
            </p>
          ))
        )}
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <label className="text-sm">
          <span className="block text-quiet">for</span>
          <select
            aria-label="for whom"
            className="field !min-h-9 max-w-80 !py-0"
            value={whom}
            onChange={({ target }) => setWhom(target.value)}
          >
            {who.map(([value, text]) => (
              <option key={value} value={value}>
                {text}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          <span className="block text-quiet">spread over</span>
          <span className="flex items-center gap-1.5">
            <input
              value={spread}
              onChange={({ target }) => setSpread(target.value)}
              inputMode="decimal"
              aria-invalid={!isSpread}
              className="field figure !w-16"
            />
            minutes
          </span>
        </label>
      </div>
      {!isSpread && <p className="mt-1 text-sm text-starved">From 0 to 60 minutes.</p>}
      {read.ok && (
        <div className="mt-3">
          <WeekOfTimes
            days={read.schedule.days}
            minutes={minutesOfDay(read.schedule.times)}
            label={`The week of this schedule: ${words}`}
          />
          <p aria-live="polite" className="mt-1 max-w-[44rem] text-sm">
            {volume === null ? 'Reckoning what it moves …' : volumeWords(volume)}
          </p>
        </div>
      )}
      <div className="mt-3 flex items-center gap-3">
        <Button type="submit" look="main" disabled={working || !read.ok || !isSpread}>
          {working ? 'Making it …' : 'Keep this schedule'}
        </Button>
        {refused !== null && (
          <p role="alert" className="text-sm font-medium text-starved">
            {refused}
          </p>
        )}
      </div>
    </form>
  );
}
