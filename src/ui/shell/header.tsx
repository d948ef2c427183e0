import { CommandBox, type CommandFacts } from './command-box';
import { KeyHelp } from './key-help';
import { Mark } from './mark';
import { Places } from './places';
import { SiteMenu } from './site-menu';
import type { Theme } from './theme';
import { ThemeSwitch } from './theme-switch';
import { Link } from '../parts/link';

interface HeaderProps {
  readonly site: { readonly id: string; readonly name: string; readonly demo: boolean } | null;
  readonly commands: CommandFacts;
  readonly theme: Theme;
  /** Who is signed in. */
  readonly technician: string;
  readonly signOut: () => Promise<void>;
}

/** The one thin row on top of every place of the console. */
export function Header({ site, commands, theme, technician, signOut }: HeaderProps) {
  return (
    <header className="sticky top-0 z-10 border-b border-hairline bg-paper print:hidden">
      <div className="mx-auto flex max-w-[86rem] flex-wrap items-center gap-x-3 px-4 max-lg:py-1.5 md:px-6 lg:h-12 lg:flex-nowrap">
        <Link href="/" className="flex shrink-0 items-center gap-2" aria-label="Bent Straw, board">
          <Mark />
          {site === null && <span className="font-semibold">Bent Straw</span>}
        </Link>
        {site !== null && <SiteMenu site={site} sites={commands.sites} chooseSite={commands.chooseSite} />}
        {site?.demo === true && (
          <span
            className="shrink-0 border border-dashed border-quiet px-1.5 text-xs text-quiet max-2xl:hidden"
            title="Made-up data; the set-up removes all of it in one step"
          >
            demo data
          </span>
        )}
        <span className="max-lg:order-last max-lg:w-full max-lg:min-w-0">
          <Places />
        </span>
        <span className="ml-auto" />
        <CommandBox {...commands} />
        <span className="flex items-center gap-1 max-md:hidden">
          <KeyHelp />
          <ThemeSwitch initial={theme} />
        </span>
        <form action={signOut} className="flex items-baseline gap-3 text-sm">
          <Link
            href="/people"
            title="People, sign-ins, your passphrase"
            className="max-w-[10rem] truncate hover:underline max-xl:hidden"
          >
            {technician}
          </Link>
          <button
            type="submit"
            className="whitespace-nowrap text-quiet underline decoration-hairline underline-offset-4 hover:text-ink"
          >
            sign out
          </button>
        </form>
      </div>
    </header>
  );
}
