'use client';

import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';

interface SiteMenuProps {
  readonly site: { readonly id: string; readonly name: string };
  readonly sites: readonly { readonly id: string; readonly name: string }[];
  readonly chooseSite: (siteId: string) => Promise<void>;
}

const ITEM = 'block cursor-pointer px-4 py-1.5 outline-none data-[highlighted]:bg-paper';

/** The office that is looked at, and the way to the others. */
export function SiteMenu({ site, sites, chooseSite }: SiteMenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <button type="button" aria-label={`Office: ${site.name}`} className="flex min-w-0 items-center gap-1.5">
          <span className="max-w-[20rem] truncate font-semibold">{site.name}</span>
          <span aria-hidden="true" className="text-xs text-quiet">
            ▾
          </span>
        </button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={8}
          className="z-20 max-w-[26rem] border border-ink bg-sheet py-2 text-ink shadow-[3px_3px_0_var(--hairline)]"
        >
          {sites.map(({ id, name }) => (
            <DropdownMenu.Item key={id} className={ITEM} onSelect={() => void chooseSite(id)}>
              <span className="block truncate">
                {name}
                {id === site.id && <span className="text-quiet"> · shown now</span>}
              </span>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 border-t border-hairline" />
          <DropdownMenu.Item asChild>
            <Link href="/sites" className={ITEM}>
              All offices side by side, or add one
            </Link>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
