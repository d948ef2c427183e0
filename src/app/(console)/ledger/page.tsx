import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { queryFaultWords } from '@/core';
import { LEDGER_FIRST_ROWS, ledgerFrameOf, ledgerOf, theConsole } from '@/services';
import { drawnRun } from '@/ui/ledger/drawn-run';
import { COLUMNS_COOKIE, readColumns } from '@/ui/ledger/ledger-columns';
import { ledgerSearch, readLedgerChoice } from '@/ui/ledger/ledger-href';
import { LedgerView } from '@/ui/ledger/ledger-view';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import { compareChosenAction } from '../side/actions';
import {
  leaveOutRunsAction,
  matchingRunsAction,
  moreRunsAction,
  noteRunsAction,
  putRunsBackAction,
  removeRunsAction,
  removeViewAction,
  saveViewAction,
  tagRunsAction,
} from './actions';

export const metadata: Metadata = { title: 'Ledger' };

type Query = Record<string, string | string[] | undefined>;

export default async function LedgerPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  await connection();
  const named = Object.entries(await searchParams).flatMap(([name, value]) =>
    typeof value === 'string' ? [[name, value]] : [],
  );
  const choice = readLedgerChoice(new URLSearchParams(named));
  await technicianOrSignIn(`/ledger?${ledgerSearch(choice)}`);
  const context = theConsole();
  const found = await ledgerOf(context, {
    ...{ siteId: await chosenSiteId(), query: choice.query, deviceId: choice.deviceId ?? undefined },
    rows: LEDGER_FIRST_ROWS,
    ...{ sort: choice.sort ?? undefined, descending: choice.way === null ? undefined : choice.way === 'down' },
  });
  if (!found.ok) return <FirstOffice save={saveOfficeAction} />;
  const { site, runs, next, count, isMore, order, faults, filtered, nowMs } = found.value;
  const device = choice.deviceId === null ? null : await context.store.sites.device(choice.deviceId);
  const columns = (await cookies()).get(COLUMNS_COOKIE)?.value;
  return (
    <LedgerView
      siteId={site.id}
      {...{ choice, count, isMore, order, filtered }}
      keptColumns={readColumns(columns)}
      first={{ runs: runs.map((run) => drawnRun(run, site.timeZone, nowMs)), next }}
      faults={faults.map(queryFaultWords)}
      deviceName={choice.deviceId === null ? null : (device?.name ?? 'a device that was removed')}
      frame={await ledgerFrameOf(context, site.id)}
      actions={{
        more: moreRunsAction.bind(null, site.id),
        matching: matchingRunsAction.bind(null, site.id),
        tag: tagRunsAction.bind(null, site.id),
        note: noteRunsAction.bind(null, site.id),
        leaveOut: leaveOutRunsAction.bind(null, site.id),
        remove: removeRunsAction.bind(null, site.id),
        compare: compareChosenAction.bind(null, site.id),
        putBack: putRunsBackAction,
        saveView: saveViewAction.bind(null, site.id),
        removeView: removeViewAction.bind(null, site.id),
      }}
    />
  );
}
