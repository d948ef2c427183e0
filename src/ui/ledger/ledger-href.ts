import type { LedgerQuery } from '@/services';

/** The address of the ledger narrowed as asked. */
export function ledgerHref({ text, deviceId, linkKind, reach, page }: LedgerQuery): string {
  const query = new URLSearchParams();
  if (text) query.set('text', text);
  if (deviceId) query.set('device', deviceId);
  if (linkKind) query.set('link', linkKind);
  if (reach) query.set('reach', reach);
  if (page !== undefined && page > 1) query.set('page', String(page));
  return query.size === 0 ? '/ledger' : `/ledger?${query}`;
}
