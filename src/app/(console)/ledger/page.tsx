import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { LINK_KINDS, REACHES } from '@/core';
import { ledgerOf, theConsole } from '@/services';
import { drawnRun } from '@/ui/ledger/drawn-run';
import { LedgerFilters } from '@/ui/ledger/ledger-filters';
import { LedgerPages } from '@/ui/ledger/ledger-pages';
import { LEDGER_SPANS, spanFromMs, type LedgerSpan } from '@/ui/ledger/ledger-span';
import { LedgerTable } from '@/ui/ledger/ledger-table';
import { saveOfficeAction } from '../set-up/actions';
import { FirstOffice } from '@/ui/set-up/first-office';

export const metadata: Metadata = { title: 'Ledger' };

type Query = Record<string, string | string[] | undefined>;

export default async function LedgerPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  await connection();
  const query = await searchParams;
  await technicianOrSignIn('/ledger');
  const one = (name: string) => (typeof query[name] === 'string' && query[name] !== '' ? query[name] : undefined);
  const chosen = {
    text: one('text'),
    deviceId: one('device'),
    linkKind: LINK_KINDS.find((kind) => kind === one('link')),
    reach: REACHES.find((reach) => reach === one('reach')),
    span: (Object.keys(LEDGER_SPANS) as LedgerSpan[]).find((span) => span === one('span')),
    older: one('older'),
    newer: one('newer'),
  };
  const context = theConsole();
  const { span, ...narrowed } = chosen;
  const fromMs = span === undefined ? undefined : spanFromMs(span, context.wallMs());
  const found = await ledgerOf(context, { ...narrowed, siteId: await chosenSiteId(), fromMs });
  if (!found.ok) return <FirstOffice save={saveOfficeAction} />;
  const ledger = found.value;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
        <h1 className="text-xl font-semibold">Ledger</h1>
        <LedgerFilters devices={ledger.devices} total={ledger.total} filtered={ledger.filtered} chosen={chosen} />
      </div>
      <LedgerTable runs={ledger.runs.map(drawnRun)} filtered={ledger.filtered} />
      <LedgerPages ledger={ledger} chosen={chosen} />
    </>
  );
}
