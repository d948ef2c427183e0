'use client';

import { useState } from 'react';
import { LINK_KINDS, linkKindWords, REACHES, type DateOrder, type Decimals, type ImportReading } from '@/core';

const ORDERS: readonly (readonly [DateOrder, string])[] = [
  ['day-month-year', 'day, month, year'],
  ['month-day-year', 'month, day, year'],
  ['year-month-day', 'year, month, day'],
];
const SIGNS: readonly (readonly [Decimals, string])[] = [
  ['point', '93.8'],
  ['comma', '93,8'],
];

interface ChoiceProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly (readonly [Value, string])[];
  readonly onValue: (value: Value) => void;
}

function Choice<Value extends string>({ label, value, options, onValue }: ChoiceProps<Value>) {
  return (
    <label className="block text-sm">
      <span className="block text-quiet">{label}</span>
      <select className="field !min-h-8 !py-0" value={value} onChange={({ target }) => onValue(target.value as Value)}>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

interface ReadingChoicesProps {
  readonly reading: ImportReading;
  readonly onReading: (reading: ImportReading) => void;
}

/** How days and figures are written, and what holds for lines that do not say it. */
export function ReadingChoices({ reading, onReading }: ReadingChoicesProps) {
  const { dates, decimals, otherwise, columns } = reading;
  const [device, setDevice] = useState(otherwise.device);
  const has = (field: string) => columns.some((column) => column?.field === field);
  const rest = (change: Partial<ImportReading['otherwise']>) =>
    onReading({ ...reading, otherwise: { ...otherwise, ...change } });
  return (
    <div className="flex flex-wrap gap-x-5 gap-y-2">
      <Choice
        label="days are written"
        value={dates}
        options={ORDERS}
        onValue={(each) => onReading({ ...reading, dates: each })}
      />
      <Choice
        label="figures are written"
        value={decimals}
        options={SIGNS}
        onValue={(each) => onReading({ ...reading, decimals: each })}
      />
      <label className="block text-sm">
        <span className="block text-quiet">device, where a line names none</span>
        <input
          className="field !min-h-8 !py-0"
          value={device}
          maxLength={120}
          onChange={({ target }) => setDevice(target.value)}
          onBlur={() => device !== otherwise.device && rest({ device })}
          onKeyDown={({ key }) => key === 'Enter' && device !== otherwise.device && rest({ device })}
        />
      </label>
      <Choice
        label={has('link') ? 'link, where a line names none' : 'link of all lines'}
        value={otherwise.link}
        options={LINK_KINDS.map((kind) => [kind, linkKindWords(kind)] as const)}
        onValue={(link) => rest({ link })}
      />
      <Choice
        label={has('reach') ? 'reach, where a line names none' : 'reach of all lines'}
        value={otherwise.reach}
        options={REACHES.map((reach) => [reach, reach] as const)}
        onValue={(reach) => rest({ reach })}
      />
    </div>
  );
}
