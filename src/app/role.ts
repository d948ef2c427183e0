import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import {
  DEVICE_COOKIE,
  hasTechnicians,
  roleOf,
  scopeAllows,
  SIGN_IN_COOKIE,
  theConsole,
  type Role,
  type Technician,
} from '@/services';
import { failed, type Outcome, type TokenScope } from '@/wire';

/** Who sent this request; found out once for the page and what stands around it. */
export const currentRole = cache(async (): Promise<Role> => {
  const [jar, head] = await Promise.all([cookies(), headers()]);
  return roleOf(theConsole(), {
    signIn: jar.get(SIGN_IN_COOKIE)?.value ?? null,
    device: jar.get(DEVICE_COOKIE)?.value ?? null,
    authorization: head.get('authorization'),
  });
});

/** For pages: whoever is not the technician is led to the sign-in, and back to `path` after it. */
export async function technicianOrSignIn(path: string): Promise<Technician> {
  const role = await currentRole();
  if (role.kind === 'technician') return role;
  const known = await hasTechnicians(theConsole());
  redirect(known ? `/sign-in?to=${encodeURIComponent(path)}` : '/welcome');
}

/** For pages about people: a script is nobody there. */
export async function personOrSignIn(path: string): Promise<NonNullable<Technician['person']>> {
  const { person } = await technicianOrSignIn(path);
  return person ?? redirect(`/sign-in?to=${encodeURIComponent(path)}`);
}

/** For route handlers that only read, or that stand beside the table of commands. */
export async function technician(
  scope: TokenScope = 'read',
): Promise<Outcome<Technician, 'not-signed-in' | 'token-scope'>> {
  const role = await currentRole();
  if (role.kind !== 'technician') return failed('not-signed-in');
  return scopeAllows(role.scope, scope)
    ? { ok: true, value: role }
    : failed('token-scope', { name: role.name, scope: role.scope, wanted: scope });
}
