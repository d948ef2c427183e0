'use client';

import { Menu, MenuItem, MenuItemAs, MenuRule } from '../parts/menu';
import { Link } from '../parts/link';

interface SiteMenuProps {
  readonly site: { readonly id: string; readonly name: string };
  readonly sites: readonly { readonly id: string; readonly name: string }[];
  readonly chooseSite: (siteId: string) => Promise<void>;
}

/** The office that is looked at, and the way to the others. */
export function SiteMenu({ site, sites, chooseSite }: SiteMenuProps) {
  return (
    <Menu
      trigger={
        <button type="button" aria-label={`Office: ${site.name}`} className="flex min-w-0 items-center gap-1.5">
          <span className="min-w-[5rem] max-w-[11rem] truncate text-left font-semibold md:max-w-[17rem]">
            {site.name}
          </span>
          <span aria-hidden="true" className="text-xs text-quiet">
            ▾
          </span>
        </button>
      }
    >
      {sites.map(({ id, name }) => (
        <MenuItem key={id} onChoose={() => void chooseSite(id)}>
          <span className="block truncate">
            {name}
            {id === site.id && <span className="text-quiet"> · shown now</span>}
          </span>
        </MenuItem>
      ))}
      <MenuRule />
      <MenuItemAs>
        <Link href="/sites">All offices side by side, or add one</Link>
      </MenuItemAs>
    </Menu>
  );
}
