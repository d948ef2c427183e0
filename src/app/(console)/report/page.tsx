import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { SWAP_WORDS } from '@/core';
import { huntsOf, reportOf, siteOf, swapsPageOf, theConsole } from '@/services';
import { CONSOLE_FAULTS, problemOf } from '@/wire';
import { wallTimeWords } from '@/ui/parts/wall-time';
import { ReportChoiceForm } from '@/ui/report/report-choice-form';
import { ReportView } from '@/ui/report/report-view';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import { readReportChoice, reportOrder, reportSearch } from './read-order';

export const metadata: Metadata = { title: 'Report' };

type Query = Record<string, string | string[] | undefined>;
const MOST_LISTED = 20;

/** Of a span, a hunt or a swap: for the boss, the user, or whoever asks. */
export default async function ReportPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  await connection();
  const named = Object.entries(await searchParams).flatMap(([name, value]) =>
    (Array.isArray(value) ? value : [value ?? '']).map((each) => [name, each]),
  );
  const choice = readReportChoice(new URLSearchParams(named));
  await technicianOrSignIn(`/report?${reportSearch(choice)}`);
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const nowMs = context.wallMs();
  const when = { timeZone: site.timeZone, nowMs };
  const { order, fault } = reportOrder(site.id, choice, when);
  const [hunts, { swaps }, report] = await Promise.all([
    huntsOf(context, site.id),
    swapsPageOf(context, site.id),
    order === null ? null : reportOf(context, order),
  ]);
  const refused = report === null || report.ok ? fault : problemOf(CONSOLE_FAULTS, report.fault).detail;
  return (
    <>
      <ReportChoiceForm
        choice={choice}
        possible={report?.ok ? report.value.possible : []}
        hunts={hunts
          .slice(0, MOST_LISTED)
          .map(({ id, title, openedAtMs }) => [`hunt ${id}`, `${wallTimeWords(openedAtMs, when)}, ${title}`])}
        swaps={swaps
          .slice(0, MOST_LISTED)
          .map(({ id, what, words, atMs }) => [
            `swap ${id}`,
            `${wallTimeWords(atMs, when)}, ${SWAP_WORDS[what]}, ${words}`,
          ])}
        pdfHref={report?.ok ? `/report/file?${reportSearch(choice)}` : null}
      />
      {refused !== null && (
        <p role="alert" className="mt-4 font-medium text-starved">
          {refused}
        </p>
      )}
      {report?.ok && <ReportView report={report.value} />}
    </>
  );
}
