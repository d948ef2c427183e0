import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { casePageOf, theConsole } from '@/services';
import { CaseActions } from '@/ui/case/case-actions';
import { CaseForm } from '@/ui/case/case-form';
import { CaseView } from '@/ui/case/case-view';
import { changeCaseAction, closeCaseAction, removeCaseAction } from '../actions';

export const metadata: Metadata = { title: 'Case' };

interface CasePlaceProps {
  readonly params: Promise<{ id: string }>;
}

export default async function CasePlace({ params }: CasePlaceProps) {
  await connection();
  const { id } = await params;
  await technicianOrSignIn(`/case/${id}`);
  const found = await casePageOf(theConsole(), id);
  if (!found.ok) notFound();
  const page = found.value;
  const { stored } = page;
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
