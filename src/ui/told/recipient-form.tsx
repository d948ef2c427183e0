'use client';

import { useActionState, useState } from 'react';
import { UNTOUCHED, type FormState } from '../form/form-state';
import { Button } from '../parts/button';
import { CopyText } from '../parts/copy-text';

/** What became of the form, and the secret of a webhook, shown this once. */
export interface AddedRecipient {
  readonly state: FormState;
  readonly secret: string | null;
}

const KINDS = [
  ['mail', 'a person, by mail'],
  ['webhook', 'a program, by a signed webhook'],
] as const;

interface RecipientFormProps {
  readonly add: (before: AddedRecipient, form: FormData) => Promise<AddedRecipient>;
}

/** Somebody, or a program, that is told from now on. */
export function RecipientForm({ add }: RecipientFormProps) {
  const [{ state, secret }, send, sending] = useActionState(add, { state: UNTOUCHED, secret: null });
  const [kind, setKind] = useState<'mail' | 'webhook'>('mail');
  const invalid = state.status === 'invalid' ? state : null;
  const typed = (name: string) => invalid?.typed[name] ?? '';
  const complaint = (name: string) =>
    invalid?.errors[name] === undefined ? null : (
      <span role="alert" className="mt-0.5 block text-sm font-medium text-starved">
        {invalid.errors[name]}
      </span>
    );
  return (
    <form action={send} aria-label="Tell somebody" noValidate>
      <div role="radiogroup" aria-label="Whom" className="flex flex-wrap gap-x-5 gap-y-1">
        {KINDS.map(([value, words]) => (
          <label key={value} className="flex min-h-8 items-center gap-1.5">
            <input type="radio" name="kind" value={value} checked={kind === value} onChange={() => setKind(value)} />
            {words}
          </label>
        ))}
      </div>
      <div
        key={JSON.stringify(invalid?.typed ?? state.status)}
        className="mt-2 flex flex-wrap items-start gap-x-6 gap-y-2"
      >
        <label className="w-full max-w-[26rem]">
          <span className="block text-sm text-quiet">{kind === 'mail' ? 'address of mail' : 'URL'}</span>
          <input name="target" defaultValue={typed('target')} autoComplete="off" className="field" />
          {complaint('target')}
        </label>
        <label>
          <span className="block text-sm text-quiet">of</span>
          <select name="of" defaultValue={typed('of') || 'office'} className="field !min-h-9 !py-0">
            <option value="office">this office</option>
            <option value="all">all offices</option>
          </select>
        </label>
        <span>
          <span className="block text-sm text-quiet">quiet, such as from 22 to 7, by the office’s clock</span>
          <span className="flex items-center gap-1.5">
            from
            <input
              name="quietFrom"
              defaultValue={typed('quietFrom')}
              aria-label="quiet from"
              className="field figure !w-16"
            />
            to
            <input
              name="quietUntil"
              defaultValue={typed('quietUntil')}
              aria-label="quiet until"
              className="field figure !w-16"
            />
          </span>
          {complaint('quietFrom')}
          {complaint('quietUntil')}
        </span>
      </div>
      <div className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
        <label className="flex min-h-8 items-center gap-1.5">
          <input type="checkbox" name="digest" defaultChecked={typed('digest') === 'on'} /> and the week, on Mondays at
          7
        </label>
        {kind === 'webhook' && (
          <label className="flex min-h-8 items-center gap-1.5">
            <input type="checkbox" name="allowPrivate" defaultChecked={typed('allowPrivate') === 'on'} /> it may be at
            an address of this network
          </label>
        )}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <Button type="submit" look="main" disabled={sending}>
          {sending ? 'Adding …' : 'Tell them'}
        </Button>
        <span role="status" className="text-sm text-quiet">
          {state.status === 'saved' && !sending && 'Added. Try whether it arrives.'}
        </span>
      </div>
      {typeof invalid?.refusal === 'string' && (
        <p role="alert" className="mt-1 text-sm font-medium text-starved">
          {invalid.refusal}
        </p>
      )}
      {secret !== null && (
        <div className="mt-2 max-w-[46rem] border border-ink p-3">
          <p className="text-sm">
            The secret by which each message is signed (HMAC-SHA-256 of the body, in the header{' '}
            <code className="figure">X-Bent-Straw-Signature</code>). It is shown this once.
          </p>
          <div className="mt-1 flex items-center gap-3">
            <code className="figure min-w-0 flex-1 break-all">{secret}</code>
            <CopyText text={secret} />
          </div>
        </div>
      )}
    </form>
  );
}
