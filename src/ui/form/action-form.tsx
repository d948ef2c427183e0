'use client';

import { createContext, useActionState, useContext, useId, type ReactNode } from 'react';
import { Button } from '../parts/button';
import { LabelledField } from '../parts/labelled-field';
import type { FormErrors, FormName } from '@/wire';
import { UNTOUCHED, type FormAction, type FormState } from './form-state';
import { useCheckedForm } from './use-checked-form';

interface StandOfForm {
  readonly state: FormState;
  readonly errors: FormErrors;
}

const FormContext = createContext<StandOfForm>({ state: UNTOUCHED, errors: {} });

interface ActionFormProps {
  /** Names the schema by which it is checked, here and by the server. */
  readonly form: FormName;
  readonly action: FormAction;
  readonly label: string;
  readonly save: string;
  readonly children: ReactNode;
  readonly beside?: ReactNode;
  /** What stands on the button while it is under way. */
  readonly saving?: string;
}

/** A form that sends itself to a server action, says that it was saved, or what is wrong and where. */
export function ActionForm({ form, action, label, save, saving = 'Saving …', children, beside }: ActionFormProps) {
  const [state, send, sending] = useActionState(action, UNTOUCHED);
  const { errors, onSubmit, onChange } = useCheckedForm(form);
  const stand = { state, errors: errors ?? (state.status === 'invalid' ? state.errors : {}) };
  return (
    <form action={send} aria-label={label} noValidate onSubmit={onSubmit} onChange={onChange}>
      <FormContext value={stand}>{children}</FormContext>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <Button type="submit" look="main" disabled={sending}>
          {sending ? saving : save}
        </Button>
        {beside}
        <span role="status" className="text-sm text-quiet">
          {state.status === 'saved' && errors === null && !sending && 'Saved.'}
        </span>
      </div>
      {(errors !== null || state.status === 'invalid') && (
        <p role="alert" className="mt-2 text-sm font-medium text-starved">
          {(errors === null && state.status === 'invalid' && state.refusal) || 'Not sent yet: correct what is marked.'}
        </p>
      )}
    </form>
  );
}

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly value: string;
  readonly unit?: string;
  readonly hint?: string;
  readonly list?: string;
  /** What the browser may fill in; a passphrase is shown as dots. */
  readonly kind?: 'name' | 'current-password' | 'new-password';
}

function useField(name: string, value: string) {
  const { state, errors } = useContext(FormContext);
  const id = useId();
  const error = errors[name];
  const defaultValue = state.status === 'invalid' ? (state.typed[name] ?? value) : value;
  const described = {
    'aria-invalid': error !== undefined,
    ...(error === undefined ? {} : { 'aria-describedby': `${id}-error` }),
  };
  // A new key makes React take the default again after the form was sent and reset.
  const key = `${state.status} ${defaultValue}`;
  return { id, key, error, defaultValue, described };
}

export function TextField({ name, label, value, unit, hint, list, kind }: FieldProps) {
  const { id, key, error, defaultValue, described } = useField(name, value);
  return (
    <LabelledField
      id={id}
      label={label}
      error={error}
      {...(unit === undefined ? {} : { unit })}
      {...(hint === undefined ? {} : { hint })}
    >
      <input
        key={key}
        id={id}
        name={name}
        defaultValue={defaultValue}
        list={list}
        autoComplete={kind ?? 'off'}
        {...(kind === undefined || kind === 'name' ? {} : { type: 'password' })}
        {...(unit === undefined ? {} : { inputMode: 'decimal' as const })}
        className={`field ${unit === undefined ? '' : 'figure'}`}
        {...described}
      />
    </LabelledField>
  );
}

/** Several lines of free text. */
export function NoteField({ name, label, value, hint }: Omit<FieldProps, 'unit' | 'list' | 'kind'>) {
  const { id, key, error, defaultValue, described } = useField(name, value);
  return (
    <LabelledField id={id} label={label} error={error} {...(hint === undefined ? {} : { hint })}>
      <textarea key={key} id={id} name={name} defaultValue={defaultValue} rows={2} className="field" {...described} />
    </LabelledField>
  );
}

/** A box to tick. */
export function TickField({ name, label, value }: { readonly name: string; readonly label: string; value: boolean }) {
  const { state } = useContext(FormContext);
  const ticked = state.status === 'invalid' ? state.typed[name] === 'on' : value;
  return (
    <label className="flex min-h-11 items-end gap-2 pb-1">
      <input
        key={`${state.status} ${ticked}`}
        type="checkbox"
        name={name}
        defaultChecked={ticked}
        className="mb-1 size-4 accent-[var(--ink)]"
      />
      {label}
    </label>
  );
}

interface ChoiceFieldProps extends Omit<FieldProps, 'unit' | 'list'> {
  readonly options: readonly (readonly [string, string])[];
  readonly onChoose?: (value: string) => void;
}

export function ChoiceField({ name, label, value, hint, options, onChoose }: ChoiceFieldProps) {
  const { id, key, error, defaultValue, described } = useField(name, value);
  return (
    <LabelledField id={id} label={label} error={error} {...(hint === undefined ? {} : { hint })}>
      <select
        key={key}
        id={id}
        name={name}
        defaultValue={defaultValue}
        onChange={(event) => onChoose?.(event.target.value)}
        className="field"
        {...described}
      >
        {options.map(([option, words]) => (
          <option key={option} value={option}>
            {words}
          </option>
        ))}
      </select>
    </LabelledField>
  );
}
