import Link from 'next/link';
import type { Ledger } from '@/services';
import { ledgerHref, type LedgerChoice } from './ledger-href';

interface LedgerPagesProps {
  readonly ledger: Pick<Ledger, 'older' | 'newer'>;
  readonly chosen: LedgerChoice;
}

export function LedgerPages({ ledger: { older, newer }, chosen }: LedgerPagesProps) {
  if (older === null && newer === null) return null;
  const beside = (place: Pick<LedgerChoice, 'older' | 'newer'>) =>
    ledgerHref({ ...chosen, older: undefined, newer: undefined, ...place });
  return (
    <nav aria-label="Pages of the ledger" className="mt-4 flex gap-6 text-sm">
      {newer !== null && (
        <>
          <Link className="underline" href={beside({})}>
            newest
          </Link>
          <Link className="underline" href={beside({ newer })}>
            newer
          </Link>
        </>
      )}
      {older !== null && (
        <Link className="underline" href={beside({ older })}>
          older
        </Link>
      )}
    </nav>
  );
}
