import Link from 'next/link';
import { Mark } from './mark';
import { Places } from './places';
import type { Theme } from './theme';
import { ThemeSwitch } from './theme-switch';

interface HeaderProps {
  readonly siteName: string | null;
  readonly demo: boolean;
  readonly theme: Theme;
  /** Who is signed in. */
  readonly technician: string;
  readonly signOut: () => Promise<void>;
}

/** The one thin row on top of every place of the console. */
export function Header({ siteName, demo, theme, technician, signOut }: HeaderProps) {
  return (
    <header className="sticky top-0 z-10 border-b border-hairline bg-paper">
      <div className="mx-auto flex h-12 max-w-[86rem] items-center gap-5 px-6">
        <Link href="/" className="flex min-w-0 items-center gap-2" aria-label="Bent Straw, board">
          <Mark />
          <span className="max-w-[24rem] truncate font-semibold">{siteName ?? 'Bent Straw'}</span>
        </Link>
        {demo && (
          <span className="border border-dashed border-quiet px-1.5 text-xs text-quiet" title="Made-up data">
            demo data
          </span>
        )}
        <Places />
        <span className="ml-auto" />
        <ThemeSwitch initial={theme} />
        <form action={signOut} className="flex items-baseline gap-3 text-sm">
          <span className="max-w-[10rem] truncate">{technician}</span>
          <button type="submit" className="text-quiet underline decoration-hairline underline-offset-4 hover:text-ink">
            sign out
          </button>
        </form>
      </div>
    </header>
  );
}
