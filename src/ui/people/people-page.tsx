import type { Person } from '@/services';
import { ActionForm, TextField } from '../form/action-form';
import { Section } from '../set-up/section';
import { AddPerson } from './add-person';
import type { PeopleActions } from './people-actions';
import { PersonRow } from './person-row';
import { Link } from '../parts/link';

interface PeoplePageProps {
  readonly people: readonly Person[];
  /** Whoever looks. */
  readonly self: { readonly id: string; readonly signInId: string; readonly keeper: boolean };
  readonly actions: PeopleActions;
}

/** Who may sign in, where each is signed in now, and one's own passphrase. */
export function PeoplePage({ people, self, actions }: PeoplePageProps) {
  const mayKeep = self.keeper;
  const keepers = people.filter(({ keeper }) => keeper).map(({ name }) => name);
  return (
    <div className="max-w-[64rem]">
      <div className="mb-5 flex items-baseline gap-5">
        <h1 className="text-xl font-semibold">People</h1>
        <Link href="/happened" className="text-quiet underline decoration-hairline underline-offset-4 hover:text-ink">
          What happened: who did what, and when
        </Link>
      </div>
      <Section
        title="Who may sign in"
        hint="Each with a name and a passphrase; keepers add and remove people. A sign-in ends after twelve hours without use, and after two weeks in any case."
      >
        <ul>
          {people.map((person) => (
            <PersonRow
              key={person.id}
              person={person}
              isSelf={person.id === self.id}
              mayKeep={mayKeep}
              ownSignIn={self.signInId}
              actions={actions}
            />
          ))}
        </ul>
      </Section>
      <Section
        title="Add somebody"
        hint="He or she gets a link and sets a passphrase there, so that nobody else ever knows it."
      >
        {mayKeep ? (
          <AddPerson add={actions.add} />
        ) : (
          <p className="text-quiet">
            {keepers.length === 1 ? `${keepers[0]} adds and removes` : `${keepers.join(' and ')} add and remove`} people
            here.
          </p>
        )}
      </Section>
      {self !== null && (
        <Section title="Your passphrase" hint="When you change it, you are signed out everywhere else.">
          <ActionForm
            form="change-passphrase"
            action={actions.changePassphrase}
            label="Change your passphrase"
            save="Change it"
            saving="Changing …"
          >
            <div className="grid max-w-[40rem] gap-4 sm:grid-cols-3">
              <TextField name="current" label="the one you have" value="" kind="current-password" />
              <TextField name="passphrase" label="a new one" value="" kind="new-password" />
              <TextField name="again" label="the new one again" value="" kind="new-password" />
            </div>
          </ActionForm>
        </Section>
      )}
    </div>
  );
}
