import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { setUpOf, theConsole } from '@/services';
import { Header } from '@/ui/shell/header';
import { readTheme, THEME_COOKIE } from '@/ui/shell/theme';

export default async function ConsoleLayout({ children }: { readonly children: ReactNode }) {
  const { site } = await setUpOf(theConsole());
  const theme = readTheme((await cookies()).get(THEME_COOKIE)?.value);
  return (
    <>
      <Header siteName={site?.name ?? null} demo={site?.demo ?? false} theme={theme} />
      <main className="mx-auto max-w-[86rem] px-6 pb-20 pt-5">{children}</main>
    </>
  );
}
