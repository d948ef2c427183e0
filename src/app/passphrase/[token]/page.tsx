import type { Metadata } from 'next';
import { setPassphraseAction } from '@/app/sign-in/actions';
import { saferAddress } from '@/app/visitor';
import { technicianOfLink, theConsole } from '@/services';
import { DoorPage } from '@/ui/access/door-page';
import { PlainHttpNote } from '@/ui/access/plain-http-note';
import { NewPassphraseFields } from '@/ui/access/new-passphrase-fields';
import { ActionForm } from '@/ui/form/action-form';
import { CONSOLE_FAULTS } from '@/wire';

export const metadata: Metadata = { title: 'A passphrase of your own' };

/** For whoever was given a link: a colleague who was invited, or somebody who forgot the passphrase. */
export default async function PassphrasePage({ params }: { readonly params: Promise<{ token: string }> }) {
  const { token } = await params;
  const technician = await technicianOfLink(theConsole(), token);
  if (technician === null) {
    const { title, sentence } = CONSOLE_FAULTS['passphrase-link-over'];
    return <DoorPage title={title} text={sentence} />;
  }
  return (
    <DoorPage
      title={`${technician.name || 'Technician'}: set your passphrase`}
      text="You sign in with your name and this from now on. Wherever you are signed in now, that ends."
    >
      <PlainHttpNote saferAddress={await saferAddress()} />
      <ActionForm
        form="new-passphrase"
        action={setPassphraseAction}
        label="Set your passphrase"
        save="Set it and sign in"
        saving="Signing in …"
      >
        <input type="hidden" name="token" value={token} />
        {/* Password managers keep the passphrase under this name. */}
        <input type="hidden" name="username" autoComplete="username" value={technician.name} readOnly />
        <div className="grid gap-4">
          <NewPassphraseFields />
        </div>
      </ActionForm>
    </DoorPage>
  );
}
