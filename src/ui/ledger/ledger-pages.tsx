import Link from 'next/link';
import type { Ledger, LedgerQuery } from '@/services';
import { ledgerHref } from './ledger-href';

interface LedgerPagesProps {
  readonly ledger: Pick<Ledger, 'page' | 'pages'>;
  readonly chosen: LedgerQuery;
}

export function LedgerPages({ ledger: { page, pages }, chosen }: LedgerPagesProps) {
  if (pages === 1) return null;
  return (
    <nav aria-label="Pages of the ledger" className="mt-4 flex gap-6 text-sm">
      {page > 1 && (
        <Link className="underline" href={ledgerHref({ ...chosen, page: page - 1 })}>
          newer
        </Link>
      )}
      <span className="text-quiet">
        page {page} of {pages}
      </span>
      {page < pages && (
        <Link className="underline" href={ledgerHref({ ...chosen, page: page + 1 })}>
          older
        </Link>
      )}
    </nav>
  );
}
