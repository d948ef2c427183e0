import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { setUpOf, theConsole } from '@/services';
import { Header } from '@/ui/shell/header';
import { Mark } from '@/ui/shell/mark';
import { readTheme, THEME_COOKIE } from '@/ui/shell/theme';
import { currentRole } from './role';
import { signOutAction } from './sign-in/actions';

/** What stands around a page of the console: the row of places for the technician, only the name for a device. */
export async function ConsoleFrame({ children }: { readonly children: ReactNode }) {
  const role = await currentRole();
  const { site } = await setUpOf(theConsole());
  const theme = readTheme((await cookies()).get(THEME_COOKIE)?.value);
  return (
    <>
      {role.kind === 'technician' ? (
        <Header
          siteName={site?.name ?? null}
          demo={site?.demo ?? false}
          theme={theme}
          technician={role.name}
          signOut={signOutAction}
        />
      ) : (
        <p className="flex items-center gap-2 px-6 pt-5 font-semibold">
          <Mark /> Bent Straw
        </p>
      )}
      <main className="mx-auto max-w-[86rem] px-6 pb-6 pt-5">{children}</main>
    </>
  );
}
