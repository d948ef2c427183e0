import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { hasTechnicians, theConsole } from '@/services';
import { saferAddress } from '@/app/visitor';
import { PlainHttpNote } from '@/ui/access/plain-http-note';
import { DoorPage } from '@/ui/access/door-page';
import { ActionForm, TextField } from '@/ui/form/action-form';
import { readReturnPath } from '@/wire';
import { signInAction } from './actions';

export const metadata: Metadata = { title: 'Sign in' };

interface SignInProps {
  readonly searchParams: Promise<{ to?: string | string[] }>;
}

export default async function SignInPage({ searchParams }: SignInProps) {
  if (!(await hasTechnicians(theConsole()))) redirect('/welcome');
  const { to } = await searchParams;
  return (
    <DoorPage
      title="Sign in"
      text="The console is for the technician. A device that is to be tested needs only the code that the board shows. Forgotten? Whoever keeps the console makes a link for you, or the machine does: npm run passphrase."
    >
      <PlainHttpNote saferAddress={await saferAddress()} />
      <ActionForm form="sign-in" action={signInAction} label="Sign in" save="Sign in" saving="Signing in …">
        <input type="hidden" name="to" value={readReturnPath(typeof to === 'string' ? to : null)} />
        <div className="grid gap-4">
          <TextField name="name" label="your name" value="" kind="name" hint="shown to devices that you ask to run" />
          <TextField name="passphrase" label="passphrase" value="" kind="current-password" />
        </div>
      </ActionForm>
    </DoorPage>
  );
}
