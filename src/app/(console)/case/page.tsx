import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { caseSentence, planPayloadBps, USUAL_CASE_RULE, type CaseContract, type Plan } from '@/core';
import { casesOf, planOfRow, siteOf, theConsole } from '@/services';
import { CaseForm } from '@/ui/case/case-form';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import { openCaseAction } from './actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Cases' };

/** What the plan names; a usual rate stands in the contract alone. */
function contractOf(plan: Plan | null): CaseContract {
  const rates = (direction: 'down' | 'up', leastBps: number | null) => ({
    ...{ advertisedBps: plan === null ? null : planPayloadBps(plan, direction), usualBps: null, leastBps },
  });
  return { down: rates('down', plan?.leastDownBps ?? null), up: rates('up', plan?.leastUpBps ?? null) };
}

/** What somebody outside can check: lines held to their contracts. */
export default async function CasesPlace() {
  await connection();
  await technicianOrSignIn('/case');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const nowMs = context.wallMs();
  const [cases, lines, inUse] = await Promise.all([
    casesOf(context, site.id),
    context.store.sites.linesOf(site.id),
    context.store.sites.lineInUse(site.id, nowMs),
  ]);
  const line = inUse ?? lines[0];
  const plan = line === undefined ? null : planOfRow(await context.store.sites.planAt(line.id, nowMs));
  return (
    <>
      <h1 className="text-xl font-semibold">Cases</h1>
      <p className="mb-4 mt-1 max-w-[44rem] text-quiet">
        A line held to its contract by a rule, so that somebody outside can check it: the provider, the boss, an
        arbitrator. Which runs count is worked out, never typed. What was done and found in a month stands in{' '}
        <Link href="/report" className="text-ink underline">
          a report
        </Link>
        .
      </p>
      {cases.length > 0 && (
        <ul className="mb-6 max-w-[60rem]">
          {cases.map(({ stored, line: of, answer, evidence }) => (
            <li key={stored.id} className="border-t border-hairline py-1.5">
              <Link
                href={`/case/${stored.id}`}
                className="font-semibold underline decoration-hairline underline-offset-4 hover:decoration-ink"
              >
                {stored.title}
              </Link>{' '}
              <span className="text-quiet">{of.name}</span>
              <p className="text-sm">{caseSentence(answer, evidence)}</p>
            </li>
          ))}
        </ul>
      )}
      {line === undefined ? (
        <p className="text-quiet">
          No line is written down in this office yet.{' '}
          <Link href="/set-up" className="underline">
            Write it down
          </Link>{' '}
          first.
        </p>
      ) : (
        <details open={cases.length === 0}>
          <summary className="font-semibold">Open a case</summary>
          <div className="mt-2">
            <CaseForm
              isNew
              draft={{
                ...{ title: `${line.name}, ${new Date(nowMs).getFullYear()}`, notes: '', lineId: line.id },
                ...{ contract: contractOf(plan), rule: USUAL_CASE_RULE },
              }}
              lines={lines.map(({ id, name }) => ({ id, name }))}
              siteId={site.id}
              action={openCaseAction}
            />
          </div>
        </details>
      )}
    </>
  );
}
