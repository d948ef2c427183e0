import type { Metadata } from 'next';
import { hasTechnicians, isWelcome, theConsole } from '@/services';
import { saferAddress } from '@/app/visitor';
import { PlainHttpNote } from '@/ui/access/plain-http-note';
import { DoorPage } from '@/ui/access/door-page';
import { NewPassphraseFields } from '@/ui/access/new-passphrase-fields';
import { ActionForm, TextField } from '@/ui/form/action-form';
import { welcomeAction } from '../../sign-in/actions';

export const metadata: Metadata = { title: 'First start' };

export default async function WelcomePage({ params }: { readonly params: Promise<{ token: string }> }) {
  const { token } = await params;
  const context = theConsole();
  if ((await hasTechnicians(context)) || !isWelcome(context, token))
    return (
      <DoorPage
        title="This link opens nothing"
        text="It sets the first passphrase, once. Either one is set already, or the link was cut short when it was copied."
      />
    );
  return (
    <DoorPage
      title="Set the passphrase"
      text="Whoever knows it can see and change everything here. Devices that are tested do not need it; colleagues get one of their own."
    >
      <PlainHttpNote saferAddress={await saferAddress()} />
      <ActionForm
        form="welcome"
        action={welcomeAction}
        label="Set the passphrase"
        save="Open the console"
        saving="Opening …"
      >
        <input type="hidden" name="token" value={token} />
        <div className="grid gap-4">
          <TextField name="name" label="your name" value="" kind="name" hint="shown to devices that you ask to run" />
          <NewPassphraseFields />
        </div>
      </ActionForm>
    </DoorPage>
  );
}
