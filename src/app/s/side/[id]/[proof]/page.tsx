import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { connection } from 'next/server';
import { sharedSidePageOf, theConsole } from '@/services';
import { Mark } from '@/ui/shell/mark';
import { SideView } from '@/ui/side/side-view';

export const metadata: Metadata = { title: 'Side by side', robots: { index: false } };

interface SharedSideProps {
  readonly params: Promise<{ id: string; proof: string }>;
}

/** A comparison for whoever has its link: to read, with nothing on it that leads elsewhere. */
export default async function SharedSide({ params }: SharedSideProps) {
  await connection();
  const { id, proof } = await params;
  const found = await sharedSidePageOf(theConsole(), id, proof);
  if (!found.ok) notFound();
  return (
    <main className="mx-auto max-w-[86rem] px-6 py-5">
      <p className="mb-4 flex items-center gap-2 text-sm text-quiet">
        <Mark /> A comparison that was shared from Bent Straw, to read.
      </p>
      {found.value.name !== '' && <h1 className="mb-2 text-xl font-semibold">{found.value.name}</h1>}
      <SideView page={found.value} />
    </main>
  );
}
