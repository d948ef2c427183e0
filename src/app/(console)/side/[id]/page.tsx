import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { queryFaultWords } from '@/core';
import { ledgerFrameOf, sidePageOf, theConsole } from '@/services';
import { SideActions } from '@/ui/side/side-actions';
import { SideView } from '@/ui/side/side-view';
import { TrayForm } from '@/ui/side/tray-form';
import {
  changeComparisonAction,
  removeComparisonAction,
  shareComparisonAction,
  unshareComparisonAction,
} from '../actions';

export const metadata: Metadata = { title: 'Side by side' };

interface SidePlaceProps {
  readonly params: Promise<{ id: string }>;
}

export default async function SideByIdPlace({ params }: SidePlaceProps) {
  await connection();
  const { id } = await params;
  await technicianOrSignIn(`/side/${id}`);
  const context = theConsole();
  const found = await sidePageOf(context, id);
  if (!found.ok) notFound();
  const page = found.value;
  const stored = (await context.store.comparisons.byId(id))!;
  const frame = await ledgerFrameOf(context, stored.siteId);
  const faults = page.trays.flatMap((tray) => tray.faults.map(queryFaultWords));
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="min-w-0 flex-1 text-xl font-semibold">{page.name === '' ? 'Side by side' : page.name}</h1>
        <SideActions
          sharePath={page.sharePath}
          share={shareComparisonAction.bind(null, id)}
          unshare={unshareComparisonAction.bind(null, id)}
          remove={removeComparisonAction.bind(null, id)}
        />
      </div>
      {faults.map((fault) => (
        <p key={fault} role="alert" className="mb-1 text-sm text-thin-words">
          {fault}
        </p>
      ))}
      <SideView page={page} />
      <details className="mt-6 print:hidden">
        <summary className="cursor-pointer font-semibold">Fill the trays anew</summary>
        <div className="mt-2">
          <TrayForm
            trays={stored.trays}
            name={page.name}
            known={frame.known}
            does="Compare these"
            submit={changeComparisonAction.bind(null, id)}
          />
        </div>
      </details>
    </>
  );
}
