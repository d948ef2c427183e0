'use server';

import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import {
  setFirstPassphrase,
  setPassphraseByLink,
  SIGN_IN_COOKIE,
  SIGN_IN_COOKIE_SECONDS,
  signIn,
  signOut,
  theConsole,
  type SignInPlace,
} from '@/services';
import type { FormState } from '@/ui/form/form-state';
import { readReturnPath, type ConsoleFaultCode, type FormName, type FormValues, type Outcome } from '@/wire';
import { saved, textOf } from '../form-action';
import { guarded } from '../guarded';
import { signInPlace } from '../visitor';

async function keepSignIn(token: string): Promise<void> {
  (await cookies()).set(SIGN_IN_COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: (await headers()).get('x-forwarded-proto') === 'https',
    path: '/',
    maxAge: SIGN_IN_COOKIE_SECONDS,
  });
}

const SECRETS: readonly string[] = ['passphrase', 'again'];

/** What was typed comes back into the form, but never a passphrase. */
function forgettingPassphrases(state: FormState): FormState {
  if (state.status !== 'invalid') return state;
  const typed = Object.fromEntries(Object.entries(state.typed).filter(([name]) => !SECRETS.includes(name)));
  return { ...state, typed };
}

/** Lets somebody in whose form holds, and leads him on. */
async function letIn<Name extends FormName>(
  name: Name,
  form: FormData,
  to: string,
  enter: (values: FormValues<Name>, place: SignInPlace) => Promise<Outcome<string, ConsoleFaultCode>>,
): Promise<FormState> {
  const place = await signInPlace();
  const state = await saved(name, form, async (values) => {
    const token = await guarded(() => enter(values, place));
    if (token.ok) await keepSignIn(token.value);
    return token;
  });
  if (state.status === 'saved') redirect(to);
  return forgettingPassphrases(state);
}

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  return letIn('sign-in', form, readReturnPath(textOf(form, 'to')), (credentials, place) =>
    signIn(theConsole(), credentials, place),
  );
}

export async function welcomeAction(_: FormState, form: FormData): Promise<FormState> {
  return letIn('welcome', form, '/', (credentials, place) =>
    setFirstPassphrase(theConsole(), textOf(form, 'token') ?? '', credentials, place),
  );
}

/** By a link: an invitation, or one that was made at the machine. */
export async function setPassphraseAction(_: FormState, form: FormData): Promise<FormState> {
  return letIn('new-passphrase', form, '/', ({ passphrase }, place) =>
    setPassphraseByLink(theConsole(), textOf(form, 'token') ?? '', passphrase, place),
  );
}

export async function signOutAction(): Promise<void> {
  const jar = await cookies();
  await signOut(theConsole(), jar.get(SIGN_IN_COOKIE)?.value ?? null, (await signInPlace()).address);
  jar.delete(SIGN_IN_COOKIE);
  redirect('/sign-in');
}
