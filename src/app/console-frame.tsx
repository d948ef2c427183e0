import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { siteOf, theConsole } from '@/services';
import { Header } from '@/ui/shell/header';
import { Mark } from '@/ui/shell/mark';
import { readTheme, THEME_COOKIE } from '@/ui/shell/theme';
import { chooseSiteAction } from './(console)/sites/actions';
import { currentRole } from './role';
import { signOutAction } from './sign-in/actions';
import { chosenSiteId } from './site-choice';

/** What stands around a page of the console: the row of places for the technician, only the name for a device. */
export async function ConsoleFrame({ children }: { readonly children: ReactNode }) {
  const role = await currentRole();
  const context = theConsole();
  const theme = readTheme((await cookies()).get(THEME_COOKIE)?.value);
  const site = await siteOf(context, await chosenSiteId());
  const { sites } = context.store;
  const [all, devices] = await Promise.all([sites.all(), site === null ? [] : sites.devicesOf(site.id)]);
  const named = <Thing extends { readonly id: string; readonly name: string }>({ id, name }: Thing) => ({ id, name });
  return (
    <>
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:absolute focus:left-2 focus:top-2 focus:z-30 focus:bg-ink focus:px-3 focus:py-2 focus:text-paper"
      >
        Skip to what is shown
      </a>
      {role.kind === 'technician' ? (
        <Header
          site={site === null ? null : { id: site.id, name: site.name, demo: site.demo }}
          commands={{ sites: all.map(named), devices: devices.map(named), chooseSite: chooseSiteAction }}
          theme={theme}
          technician={role.name}
          signOut={signOutAction}
        />
      ) : (
        <p className="flex items-center gap-2 px-6 pt-5 font-semibold">
          <Mark /> Bent Straw
        </p>
      )}
      <main id="content" tabIndex={-1} className="mx-auto outline-none max-w-[86rem] px-4 pb-6 pt-3 md:px-6 md:pt-5">
        {children}
      </main>
    </>
  );
}
