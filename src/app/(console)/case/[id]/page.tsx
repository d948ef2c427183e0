import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { caseSpacingMinutes } from '@/core';
import { casePageOf, theConsole } from '@/services';
import { CaseActions } from '@/ui/case/case-actions';
import { CaseForm } from '@/ui/case/case-form';
import { CaseView } from '@/ui/case/case-view';
import { MeasuresItself } from '@/ui/case/measures-itself';
import { changeCaseAction, closeCaseAction, letMeasureAction, removeCaseAction } from '../actions';

export const metadata: Metadata = { title: 'Case' };

interface CasePlaceProps {
  readonly params: Promise<{ id: string }>;
}

export default async function CasePlace({ params }: CasePlaceProps) {
  await connection();
  const { id } = await params;
  await technicianOrSignIn(`/case/${id}`);
  const context = theConsole();
  const found = await casePageOf(context, id);
  if (!found.ok) notFound();
  const page = found.value;
  const { stored } = page;
  // Only by cable does a run count.
  const devices = (await context.store.sites.devicesOf(stored.siteId)).filter(({ link }) => link.medium === 'wired');
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="min-w-0 flex-1 break-words text-xl font-semibold">{stored.title}</h1>
        <CaseActions
          id={id}
          closed={stored.closedAtMs !== null}
          close={closeCaseAction.bind(null, id)}
          remove={removeCaseAction.bind(null, id)}
        />
      </div>
      <CaseView page={page} />
      {stored.closedAtMs === null && !page.evidence.complete && (
        <MeasuresItself
          devices={devices.map(({ id: deviceId, name }) => ({
            ...{ id: deviceId, name, standsBy: context.standing.isPresent(deviceId) },
          }))}
          deviceId={stored.deviceId}
          everyMinutes={caseSpacingMinutes(stored.rule)}
          choose={letMeasureAction.bind(null, id)}
        />
      )}
      <details className="mt-6 print:hidden">
        <summary className="font-semibold">Change the contract’s figures, the rule or the notes</summary>
        <div className="mt-2">
          <CaseForm
            isNew={false}
            draft={stored}
            lines={[]}
            siteId={stored.siteId}
            action={changeCaseAction.bind(null, id)}
          />
        </div>
      </details>
    </>
  );
}
