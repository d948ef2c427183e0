'use client';

import { useActionState, useId } from 'react';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { LabelledField } from '../parts/labelled-field';
import { WallTime } from '../parts/wall-time';
import type { SetUp } from '@/services';
import { TOKEN_LIVES, TOKEN_SCOPES, type TokenScope } from '@/wire';
import { useCheckedForm } from '../form/use-checked-form';
import { Section } from './section';

const SCOPE_WORDS: Readonly<Record<TokenScope, string>> = {
  read: 'read everything',
  measure: 'read, and let devices measure',
  everything: 'do everything but add people',
};
const scopeWords = (scope: string) => SCOPE_WORDS[scope as TokenScope] ?? scope;

/** How the making of a token stands. */
export type TokenState =
  | { readonly status: 'untouched' }
  | { readonly status: 'refused'; readonly why: string }
  | { readonly status: 'made'; readonly name: string; readonly token: string };

interface ScriptsSectionProps extends Pick<SetUp, 'apiTokens'> {
  readonly make: (state: TokenState, form: FormData) => Promise<TokenState>;
  readonly revoke: (tokenId: string) => Promise<void>;
}

/** Tokens by which scripts use the API: made here, shown once, revoked when they are not needed any more. */
export function ScriptsSection({ apiTokens, make, revoke }: ScriptsSectionProps) {
  const [state, send, sending] = useActionState(make, { status: 'untouched' });
  const { errors, onSubmit, onChange } = useCheckedForm('token');
  const id = useId();
  const refused = state.status === 'refused' ? state.why : undefined;
  return (
    <Section title="Scripts" hint="A token lets a script do over the API what you do here.">
      <p className="text-sm text-quiet">
        The API is described at{' '}
        <a href="/api/v1/openapi.json" className="text-ink underline">
          /api/v1/openapi.json
        </a>
        .
      </p>
      {apiTokens.length > 0 && (
        <ul className="mt-2">
          {apiTokens.map((token) => (
            <li key={token.id} className="flex items-center gap-4 border-b border-hairline py-1.5">
              <span className="max-w-[20rem] truncate">{token.name}</span>
              <span className="text-sm text-quiet">
                may {scopeWords(token.scope)}; made <WallTime atMs={token.createdAtMs} />
                {token.madeBy !== null && ` by ${token.madeBy}`},{' '}
                {token.usedAtMs === null ? (
                  'never used'
                ) : (
                  <>
                    last used <WallTime atMs={token.usedAtMs} />
                  </>
                )}
                {token.endsAtMs !== null && (
                  <>
                    , {token.ended ? 'ended' : 'until'} <WallTime atMs={token.endsAtMs} />
                  </>
                )}
              </span>
              <span className="ml-auto">
                <Confirm
                  trigger={<Button look="quiet">Revoke</Button>}
                  title={`Revoke the token of ${token.name}?`}
                  consequence="A script that uses it is refused from now on."
                  action="Revoke it"
                  onConfirm={() => void revoke(token.id)}
                />
              </span>
            </li>
          ))}
        </ul>
      )}
      <form
        action={send}
        aria-label="New token"
        noValidate
        onSubmit={onSubmit}
        onChange={onChange}
        className="mt-3 flex flex-wrap items-end gap-4"
      >
        <LabelledField id={id} label="what is the script called" error={errors?.name ?? refused}>
          <input id={id} name="name" autoComplete="off" className="field" />
        </LabelledField>
        <LabelledField id={`${id}-scope`} label="what may it do" error={errors?.scope}>
          <select id={`${id}-scope`} name="scope" defaultValue="read" className="field">
            {TOKEN_SCOPES.map((scope) => (
              <option key={scope} value={scope}>
                {SCOPE_WORDS[scope]}
              </option>
            ))}
          </select>
        </LabelledField>
        <LabelledField id={`${id}-days`} label="for how long" error={errors?.days}>
          <select id={`${id}-days`} name="days" defaultValue="90" className="field">
            {Object.entries(TOKEN_LIVES).map(([days, words]) => (
              <option key={days} value={days}>
                {words}
              </option>
            ))}
          </select>
        </LabelledField>
        <Button type="submit" disabled={sending}>
          {sending ? 'Making …' : 'Make a token'}
        </Button>
      </form>
      {state.status === 'made' && (
        <p role="status" className="mt-3 border-[1.5px] border-ink bg-sheet p-3 text-sm">
          The token of {state.name}. Copy it now; it is not shown again.
          <span className="figure mt-2 block break-all text-base">{state.token}</span>
        </p>
      )}
    </Section>
  );
}
