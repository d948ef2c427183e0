import type { LedgerQuery } from '@/services';
import type { LedgerSpan } from './ledger-span';

/** What stands in the ledger's address. */
export interface LedgerChoice extends Omit<LedgerQuery, 'siteId' | 'fromMs' | 'untilMs'> {
  readonly span?: LedgerSpan | undefined;
}

const NAMES = {
  text: 'text',
  deviceId: 'device',
  linkKind: 'link',
  reach: 'reach',
  span: 'span',
  older: 'older',
  newer: 'newer',
} as const satisfies Record<keyof LedgerChoice, string>;

/** The address of the ledger narrowed as asked. */
export function ledgerHref(choice: LedgerChoice): string {
  const query = new URLSearchParams();
  for (const [key, name] of Object.entries(NAMES)) {
    const value = choice[key as keyof LedgerChoice];
    if (value) query.set(name, value);
  }
  return query.size === 0 ? '/ledger' : `/ledger?${query}`;
}
