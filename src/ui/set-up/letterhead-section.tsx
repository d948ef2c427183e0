'use client';

import { useState } from 'react';
import type { Letterhead } from '@/services';
import { LARGEST_LOGO } from '@/wire';
import { ActionForm, NoteField, TextField } from '../form/action-form';
import type { FormAction } from '../form/form-state';
import { Section } from './section';

interface LetterheadSectionProps {
  readonly letterhead: Letterhead;
  readonly save: FormAction;
}

/** Who makes the reports. */
export function LetterheadSection({ letterhead: { name, lines, logo }, save }: LetterheadSectionProps) {
  const [tooLarge, setTooLarge] = useState(false);
  return (
    <Section title="Letterhead" hint="Stands at the head of each report: your name, address and sign.">
      <ActionForm form="letterhead" action={save} label="Letterhead" save="Save">
        <div className="grid max-w-[44rem] gap-x-6 gap-y-2 sm:grid-cols-2">
          <TextField name="name" label="name" value={name} />
          <div className="text-sm">
            <label className="block text-quiet" htmlFor="letterhead-logo">
              picture, PNG or JPEG
            </label>
            <input
              id="letterhead-logo"
              name="logo"
              type="file"
              accept="image/png,image/jpeg"
              className="mt-1 block max-w-full"
              onChange={({ target }) => {
                const isTooLarge = (target.files?.[0]?.size ?? 0) > LARGEST_LOGO;
                setTooLarge(isTooLarge);
                if (isTooLarge) target.value = '';
              }}
            />
            {tooLarge && (
              <p role="alert" className="mt-1 font-medium text-starved">
                That picture is larger than {LARGEST_LOGO / 1000} kB. Choose a smaller one.
              </p>
            )}
            {logo !== null && (
              <span className="mt-2 flex items-center gap-4">
                {/* A data URL: there is nothing to optimise. */}
                <img src={logo} alt="the picture as it is" className="max-h-10 max-w-40 object-contain" />
                <label className="flex items-center gap-1.5">
                  <input type="checkbox" name="noLogo" value="yes" /> take it away
                </label>
              </span>
            )}
          </div>
          <NoteField name="address" label="address, a line each" value={lines.join('\n')} />
        </div>
      </ActionForm>
    </Section>
  );
}
