import type { Metadata } from 'next';
import { connection } from 'next/server';
import { personOrSignIn } from '@/app/role';
import { peopleOf, theConsole } from '@/services';
import { PeoplePage } from '@/ui/people/people-page';
import {
  addPersonAction,
  changePassphraseAction,
  endSignInAction,
  endSignInsAction,
  removePersonAction,
  renewLinkAction,
  setKeeperAction,
} from './actions';

export const metadata: Metadata = { title: 'People' };

export default async function People() {
  await connection();
  const self = await personOrSignIn('/people');
  return (
    <PeoplePage
      people={await peopleOf(theConsole())}
      self={self}
      actions={{
        add: addPersonAction,
        renewLink: renewLinkAction,
        remove: removePersonAction,
        setKeeper: setKeeperAction,
        endSignIn: endSignInAction,
        endSignIns: endSignInsAction,
        changePassphrase: changePassphraseAction,
      }}
    />
  );
}
