import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { DEVICE_COOKIE, hasPassphrase, roleOf, SIGN_IN_COOKIE, theConsole, type Role } from '@/services';
import { failed, type Outcome } from '@/wire';

/** Who sent this request; found out once for the page and what stands around it. */
export const currentRole = cache(async (): Promise<Role> => {
  const [jar, head] = await Promise.all([cookies(), headers()]);
  return roleOf(theConsole(), {
    signIn: jar.get(SIGN_IN_COOKIE)?.value ?? null,
    device: jar.get(DEVICE_COOKIE)?.value ?? null,
    authorization: head.get('authorization'),
  });
});

type Technician = Extract<Role, { kind: 'technician' }>;

/** For pages: whoever is not the technician is led to the sign-in, and back to `path` after it. */
export async function technicianOrSignIn(path: string): Promise<Technician> {
  const role = await currentRole();
  if (role.kind === 'technician') return role;
  const known = await hasPassphrase(theConsole());
  redirect(known ? `/sign-in?to=${encodeURIComponent(path)}` : '/welcome');
}

/** For actions and route handlers. */
export async function technician(): Promise<Outcome<Technician, 'not-signed-in'>> {
  const role = await currentRole();
  return role.kind === 'technician' ? { ok: true, value: role } : failed('not-signed-in');
}
