import type { Metadata } from 'next';
import { connection } from 'next/server';
import { personOrSignIn } from '@/app/role';
import { auditPageOf, theConsole } from '@/services';
import { HappenedPage } from '@/ui/happened/happened-page';
import { KIND_CODES, readKind } from '@/ui/happened/kinds';

export const metadata: Metadata = { title: 'What happened' };

interface HappenedProps {
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

const one = (value: string | string[] | undefined) => (typeof value === 'string' && value !== '' ? value : null);

/** Who did what, when, and from where. */
export default async function Happened({ searchParams }: HappenedProps) {
  await connection();
  await personOrSignIn('/happened');
  const asked = await searchParams;
  const before = Number(one(asked['before']));
  const [who, kind] = [one(asked['who']), readKind(one(asked['kind']))];
  const page = await auditPageOf(theConsole(), {
    beforeId: Number.isSafeInteger(before) && before > 0 ? before : null,
    who,
    whats: kind === null ? null : KIND_CODES[kind],
  });
  return <HappenedPage page={page} who={who} kind={kind} older={before > 0} />;
}
