'use server';

import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { setFirstPassphrase, SIGN_IN_COOKIE, SIGN_IN_COOKIE_SECONDS, signIn, signOut, theConsole } from '@/services';
import type { FormState } from '@/ui/form/form-state';
import { readReturnPath } from '@/wire';
import { saved, textOf } from '../form-action';
import { visitorWith } from '../visitor';

async function keepSignIn(token: string): Promise<void> {
  (await cookies()).set(SIGN_IN_COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: (await headers()).get('x-forwarded-proto') === 'https',
    path: '/',
    maxAge: SIGN_IN_COOKIE_SECONDS,
  });
}

export async function signInAction(_: FormState, form: FormData): Promise<FormState> {
  const { address } = await visitorWith(null);
  const state = await saved('sign-in', form, async (credentials) => {
    const token = await signIn(theConsole(), credentials, address);
    if (token.ok) await keepSignIn(token.value);
    return token;
  });
  if (state.status === 'saved') redirect(readReturnPath(textOf(form, 'to')));
  return forgettingPassphrases(state);
}

export async function welcomeAction(_: FormState, form: FormData): Promise<FormState> {
  const state = await saved('welcome', form, async (credentials) => {
    const token = await setFirstPassphrase(theConsole(), textOf(form, 'token') ?? '', credentials);
    if (token.ok) await keepSignIn(token.value);
    return token;
  });
  if (state.status === 'saved') redirect('/');
  return forgettingPassphrases(state);
}

const SECRETS: readonly string[] = ['passphrase', 'again'];

/** What was typed comes back into the form, but never a passphrase. */
function forgettingPassphrases(state: FormState): FormState {
  if (state.status !== 'invalid') return state;
  const typed = Object.fromEntries(Object.entries(state.typed).filter(([name]) => !SECRETS.includes(name)));
  return { ...state, typed };
}

export async function signOutAction(): Promise<void> {
  const jar = await cookies();
  await signOut(theConsole(), jar.get(SIGN_IN_COOKIE)?.value ?? null);
  jar.delete(SIGN_IN_COOKIE);
  redirect('/sign-in');
}
