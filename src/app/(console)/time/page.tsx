import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { siteOf, theConsole, timeSubjectsOf } from '@/services';
import { FirstOffice } from '@/ui/set-up/first-office';
import { TimeView } from '@/ui/time/time-view';
import { saveOfficeAction } from '../set-up/actions';

export const metadata: Metadata = { title: 'Over time' };

interface TimePlaceProps {
  readonly searchParams: Promise<{ readonly of?: string | string[] }>;
}

/** What time shows: the line in use first, or what the address names. */
export default async function TimePlace({ searchParams }: TimePlaceProps) {
  await connection();
  const { of } = await searchParams;
  const asked = typeof of === 'string' ? of : undefined;
  await technicianOrSignIn(asked === undefined ? '/time' : `/time?of=${encodeURIComponent(asked)}`);
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const nowMs = context.wallMs();
  const [subjects, inUse] = await Promise.all([
    timeSubjectsOf(context, site.id),
    context.store.sites.lineInUse(site.id, nowMs),
  ]);
  const subject =
    subjects.find(({ key }) => key === asked) ?? subjects.find(({ key }) => key === `line ${inUse?.id}`) ?? subjects[0];
  return (
    <>
      <h1 className="sr-only">Over time</h1>
      {asked !== undefined && !subjects.some(({ key }) => key === asked) && (
        <p className="mb-2 text-thin-words">
          What the address names is no line and no device of {site.name}, or nothing was measured there yet.
        </p>
      )}
      {subject === undefined ? (
        <p className="text-quiet">
          Nothing can be looked at over time yet: no line is written down, and nothing was measured. Begin in the
          set-up, or show a device the code.
        </p>
      ) : (
        <TimeView
          key={subject.key}
          siteId={site.id}
          siteName={site.name}
          demo={site.demo}
          timeZone={site.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone}
          nowMs={nowMs}
          subjects={subjects}
          subject={subject}
        />
      )}
    </>
  );
}
