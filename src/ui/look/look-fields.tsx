'use client';

import type { LookKind } from '@/core';
import { LabelledField } from '../parts/labelled-field';

/** What was typed, by field. */
export type TypedLook = Readonly<
  Record<
    | ('folder' | 'megabytes' | 'streams' | 'target' | 'resolvers' | 'names' | 'ports')
    | ('community' | 'user' | 'authKey' | 'privKey'),
    string
  >
> & { readonly loaded: boolean };

type TextField = Exclude<keyof TypedLook, 'loaded'>;

interface LookFieldsProps {
  readonly what: LookKind;
  readonly typed: TypedLook;
  readonly type: (name: TextField, value: string) => void;
  readonly typeLoaded: (loaded: boolean) => void;
}

interface FieldProps extends Omit<LookFieldsProps, 'what' | 'typeLoaded'> {
  readonly name: TextField;
  readonly label: string;
  readonly hint?: string;
  readonly unit?: string;
  readonly width: string;
  readonly secret?: boolean;
}

function Field({ name, label, hint, unit, width, secret = false, typed, type }: FieldProps) {
  return (
    <LabelledField
      id={`look-${name}`}
      label={label}
      {...(hint === undefined ? {} : { hint })}
      {...(unit === undefined ? {} : { unit })}
    >
      <input
        id={`look-${name}`}
        value={typed[name]}
        onChange={({ target }) => type(name, target.value)}
        type={secret ? 'password' : 'text'}
        autoComplete={secret ? 'new-password' : 'off'}
        spellCheck={false}
        className={`field !min-h-9 ${width}`}
      />
    </LabelledField>
  );
}

const HINTS: Readonly<Record<LookKind, string>> = {
  share:
    'Random files are written there until they are safe, and read back past the machine’s own memory; nothing of them stays.',
  echo: 'Twenty requests, five a second. A host that answers none may be silent on purpose.',
  names:
    'The machine’s own resolver, its gateway and those named here, three rounds in turn: a name that nobody can have asked for before, then one that was asked for a moment ago.',
  path: 'Who answers at each distance, how far away each is, and the largest packet that goes through whole.',
  ports:
    'By SNMP, reading only, twice ten seconds apart: speed, duplex, damaged frames, who is behind which port, and what each moves. With a user it is version 3 (SHA, AES), else 2c. What is left blank is as it was last; it is kept sealed and never shown again.',
  outside:
    'By which address the peer outside sees this office, whether the provider translates addresses too, and whether ports answer from there: one connection each, to this office alone.',
  line: 'What everybody together moves over the line now, as the router counts it (UPnP IGD): reads only, for ten seconds.',
  air: 'Which networks its radio hears, on which channels, and where ours would have it quieter. Takes some seconds.',
  programs: 'What each program on that machine moves over TCP in ten seconds.',
};

/** What is to be known for a look of each kind. */
export function LookFields({ what, typed, type, typeLoaded }: LookFieldsProps) {
  const props = { typed, type };
  return (
    <>
      {what === 'share' && (
        <>
          <Field {...props} name="folder" label="folder on that machine" width="w-72" />
          <Field {...props} name="megabytes" label="how much" unit="MB" width="w-24 figure text-right" />
          <Field {...props} name="streams" label="files at a time" width="w-20 figure text-right" />
        </>
      )}
      {(what === 'echo' || what === 'path') && (
        <Field {...props} name="target" label="to a name or an address" width="w-72" />
      )}
      {what === 'path' && (
        <label className="flex min-h-9 items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={typed.loaded}
            onChange={({ target }) => typeLoaded(target.checked)}
            className="size-4 accent-ink"
          />
          and again while the line is full (moves as much as a run, and takes half a minute)
        </label>
      )}
      {what === 'ports' && (
        <>
          <Field {...props} name="target" label="router or switch" width="w-56" />
          <Field {...props} name="community" label="community (2c)" width="w-40" secret />
          <Field {...props} name="user" label="or a user (3)" width="w-36" />
          <Field {...props} name="authKey" label="its key" width="w-36" secret />
          <Field {...props} name="privKey" label="key for privacy" width="w-36" secret />
        </>
      )}
      {what === 'outside' && (
        <Field {...props} name="ports" label="ports to knock at, with commas (at most four)" width="w-56" />
      )}
      {what === 'names' && (
        <>
          <Field {...props} name="resolvers" label="more resolvers, with commas" width="w-80" />
          <Field {...props} name="names" label="names to ask for, with commas" width="w-80" />
        </>
      )}
      <p className="basis-full text-sm text-quiet">{HINTS[what]}</p>
    </>
  );
}
