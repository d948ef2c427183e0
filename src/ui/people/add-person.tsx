'use client';

import { useActionState, useId } from 'react';
import { useCheckedForm } from '../form/use-checked-form';
import { Button } from '../parts/button';
import { LabelledField } from '../parts/labelled-field';
import { LinkNote } from './link-note';
import { NO_LINK, type LinkState } from './link-state';

/** Adds somebody by name; a link comes back by which he sets a passphrase that nobody else knows. */
export function AddPerson({ add }: { readonly add: (state: LinkState, form: FormData) => Promise<LinkState> }) {
  const [state, send, sending] = useActionState(add, NO_LINK);
  const { errors, onSubmit, onChange } = useCheckedForm('technician');
  const id = useId();
  return (
    <>
      <form
        action={send}
        aria-label="Add somebody"
        noValidate
        onSubmit={onSubmit}
        onChange={onChange}
        className="flex flex-wrap items-end gap-4"
      >
        <LabelledField id={id} label="name" error={errors?.name}>
          <input id={id} name="name" autoComplete="off" className="field" />
        </LabelledField>
        <Button type="submit" disabled={sending}>
          {sending ? 'Adding …' : 'Add somebody'}
        </Button>
      </form>
      <LinkNote state={state} />
    </>
  );
}
