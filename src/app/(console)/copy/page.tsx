import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { COPY_DAYS, copyPageOf, siteOf, theConsole } from '@/services';
import { CopyView } from '@/ui/copy/copy-view';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';

export const metadata: Metadata = { title: 'Copy time' };

interface CopyPlaceProps {
  readonly searchParams: Promise<{ readonly of?: string | string[] }>;
}

/** How long a copy takes from here to there. */
export default async function CopyPlace({ searchParams }: CopyPlaceProps) {
  await connection();
  const { of } = await searchParams;
  const asked = typeof of === 'string' ? of : undefined;
  await technicianOrSignIn(asked === undefined ? '/copy' : `/copy?of=${encodeURIComponent(asked)}`);
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const page = await copyPageOf(context, site.id, asked);
  if (page.ok) return <CopyView key={page.value.chosen?.subject.key} page={page.value} days={COPY_DAYS} />;
  return (
    <>
      <h1 className="text-xl font-semibold">How long a copy takes</h1>
      <p className="mt-2 text-thin-words">
        What the address names is no device of {site.name}, or nothing was measured there.{' '}
        <a href="/copy" className="underline">
          Choose another
        </a>
      </p>
    </>
  );
}
