'use client';

import { EXPORT_FORMATS, type ExportFormat } from '@/wire';
import { Button } from '../parts/button';
import { Menu, MenuItemAs } from '../parts/menu';
import type { LedgerChoice } from './ledger-href';
import { Link } from '../parts/link';

const WORDS: Readonly<Record<ExportFormat, string>> = {
  csv: 'Take them out as CSV, for a table calculator',
  json: 'Take them out as JSON',
  ndjson: 'Take them out as JSON, a line for each run',
};

interface TakeOutProps {
  readonly siteId: string;
  readonly choice: LedgerChoice;
}

/** All runs that match as a file, and the way for others in. */
export function TakeOut({ siteId, choice }: TakeOutProps) {
  const href = (format: ExportFormat) => {
    const search = new URLSearchParams({ site: siteId, format });
    if (choice.query !== '') search.set('query', choice.query);
    if (choice.deviceId !== null) search.set('device', choice.deviceId);
    return `/api/v1/runs/export?${search}`;
  };
  return (
    <Menu
      trigger={
        <Button look="quiet" className="!min-h-9 !px-2 text-sm">
          in and out
        </Button>
      }
    >
      {EXPORT_FORMATS.map((format) => (
        <MenuItemAs key={format}>
          <a href={href(format)} download>
            {WORDS[format]}
          </a>
        </MenuItemAs>
      ))}
      <MenuItemAs>
        <Link href="/ledger/bring-in">Bring runs in from a file …</Link>
      </MenuItemAs>
    </Menu>
  );
}
