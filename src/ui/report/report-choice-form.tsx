'use client';

import { useState } from 'react';
import type { ReportSectionKey } from '@/services';
import { Button } from '../parts/button';
import { PrintButton } from '../parts/print-button';
import { MadeFile } from '../parts/made-file';

const SPANS: readonly (readonly [string, string])[] = [
  ['this-month', 'this month'],
  ['last-month', 'last month'],
  ['last-week', 'the last seven days'],
  ['days', 'days that you name'],
];
const SECTION_WORDS: Readonly<Record<ReportSectionKey, string>> = {
  findings: 'what stood out',
  plan: 'against the plan',
  silence: 'what was silent',
  measured: 'what was measured',
  changed: 'what was changed',
  hunts: 'hunts',
  cases: 'cases',
  story: 'how it went',
};

interface ReportChoiceFormProps {
  readonly choice: {
    readonly about: string;
    readonly from: string;
    readonly until: string;
    readonly sections: readonly ReportSectionKey[] | null;
  };
  readonly possible: readonly ReportSectionKey[];
  /** As they stand in the address, and in words. */
  readonly hunts: readonly (readonly [string, string])[];
  readonly swaps: readonly (readonly [string, string])[];
  readonly pdfHref: string | null;
}

/** Another report has other sections: all of them. */
function submitAnew(form: HTMLFormElement): void {
  for (const box of form.querySelectorAll<HTMLInputElement>('[name=section]')) box.disabled = true;
  form.requestSubmit();
}

/** What a report is about, and what is in it. An ordinary form: the address holds the choice. */
export function ReportChoiceForm({ choice, possible, hunts, swaps, pdfHref }: ReportChoiceFormProps) {
  const [about, setAbout] = useState(choice.about);
  return (
    <form method="get" action="/report" className="print:hidden" aria-label="Report">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <p className="mr-2 self-center text-xl font-semibold">Report</p>
        <label className="text-sm">
          <span className="block text-quiet">about</span>
          <select
            name="about"
            className="field !min-h-9 max-w-80 !py-0"
            value={about}
            onChange={({ target }) => {
              setAbout(target.value);
              // Days have to be typed first.
              if (target.value !== 'days' && target.form !== null) submitAnew(target.form);
            }}
          >
            {SPANS.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
            {hunts.length > 0 && (
              <optgroup label="a hunt">
                {hunts.map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </optgroup>
            )}
            {swaps.length > 0 && (
              <optgroup label="a change">
                {swaps.map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </optgroup>
            )}
          </select>
        </label>
        {about === 'days' &&
          (['from', 'until'] as const).map((name) => (
            <label key={name} className="text-sm">
              <span className="block text-quiet">{name === 'from' ? 'from the day' : 'to the day'}</span>
              <input
                name={name}
                defaultValue={choice[name]}
                placeholder="1.11.2026"
                className="field !min-h-9 !w-36 !py-0"
              />
            </label>
          ))}
        <span className="ml-auto flex items-center gap-3">
          <PrintButton words="Print" />
          {pdfHref !== null && <MadeFile key={pdfHref} href={pdfHref} words="PDF" />}
        </span>
      </div>
      <fieldset className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
        <legend className="sr-only">Sections</legend>
        {possible.length > 0 && <input type="hidden" name="section" value="" />}
        {possible.map((key) => (
          <label key={key} className="flex min-h-8 items-center gap-1.5">
            <input
              type="checkbox"
              name="section"
              value={key}
              defaultChecked={choice.sections?.includes(key) ?? true}
              onChange={({ target }) => about === choice.about && target.form?.requestSubmit()}
            />
            {SECTION_WORDS[key]}
          </label>
        ))}
        <Button type="submit" className="!min-h-8 text-sm">
          Show it
        </Button>
      </fieldset>
    </form>
  );
}
