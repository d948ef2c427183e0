'use client';

import { useState } from 'react';
import type { Person } from '@/services';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { WallTime } from '../parts/wall-time';
import { LinkNote } from './link-note';
import { NO_LINK } from './link-state';
import type { PeopleActions } from './people-actions';
import { SignInList } from './sign-in-list';

interface PersonRowProps {
  readonly person: Person;
  readonly isSelf: boolean;
  /** Whether whoever looks may add and remove people. */
  readonly mayKeep: boolean;
  readonly ownSignIn: string | null;
  readonly actions: PeopleActions;
}

/** Somebody who may sign in: what he may do, where he is signed in, and what can be done about it. */
export function PersonRow({ person, isSelf, mayKeep, ownSignIn, actions }: PersonRowProps) {
  const [link, setLink] = useState(NO_LINK);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { id, name, keeper, invited, addedAtMs, signIns } = person;
  const tell = (act: Promise<string | null>) => void act.then(setTrouble);
  const shown = name || 'the one passphrase of before';
  const mayEnd = isSelf || mayKeep;
  const others = signIns.filter((each) => each.id !== ownSignIn);
  return (
    <li className="border-b border-hairline py-3 last:border-b-0">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h3 className="max-w-[20rem] truncate text-lg font-semibold">{shown}</h3>
        <span className="text-sm text-quiet">
          {isSelf && 'you · '}
          {keeper && 'keeper · '}
          {invited ? 'invited, has not come in yet' : name === '' && 'whoever signs in with it next gives it a name'}
          {!invited && name !== '' && (
            <>
              since <WallTime atMs={addedAtMs} />
            </>
          )}
        </span>
      </div>
      {!mayEnd ? null : signIns.length === 0 ? (
        !invited && <p className="mt-1 text-sm text-quiet">Not signed in anywhere.</p>
      ) : (
        <div className="mt-1">
          <SignInList signIns={signIns} own={ownSignIn} end={actions.endSignIn} />
        </div>
      )}
      <div className="mt-1 -ml-3 flex flex-wrap gap-x-1">
        {mayEnd && others.length > 0 && (
          <Button look="quiet" onClick={() => tell(actions.endSignIns(id))}>
            {isSelf ? 'Sign out everywhere else' : 'Sign out everywhere'}
          </Button>
        )}
        {mayKeep && !isSelf && (
          <Button look="quiet" onClick={() => void actions.renewLink(id).then(setLink)}>
            Make a link to set a passphrase
          </Button>
        )}
        {mayKeep && !invited && (
          <Button look="quiet" onClick={() => tell(actions.setKeeper(id, !keeper))}>
            {keeper ? 'No longer a keeper' : 'Make a keeper'}
          </Button>
        )}
        {mayKeep && (
          <Confirm
            trigger={<Button look="quiet">Remove</Button>}
            title={`Remove ${shown}?`}
            consequence={`${isSelf ? 'You are' : 'He or she is'} signed out at once and cannot come in any more. The tokens made by that name are revoked. What was done stays written down.`}
            action="Remove"
            onConfirm={() => tell(actions.remove(id))}
          />
        )}
      </div>
      {trouble !== null && (
        <p role="alert" className="mt-1 text-sm font-medium text-starved">
          {trouble}
        </p>
      )}
      <LinkNote state={link} />
    </li>
  );
}
