import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { connection } from 'next/server';
import { sharedRunPageOf, theConsole } from '@/services';
import { RunView } from '@/ui/run/run-view';
import { Mark } from '@/ui/shell/mark';

export const metadata: Metadata = { title: 'A shared run', robots: { index: false } };

interface SharedRunProps {
  readonly params: Promise<{ id: string; proof: string }>;
}

/** One run for whoever has its link: to read, with nothing on it that leads elsewhere. */
export default async function SharedRun({ params }: SharedRunProps) {
  await connection();
  const { id, proof } = await params;
  const found = await sharedRunPageOf(theConsole(), id, proof);
  if (!found.ok) notFound();
  return (
    <main className="mx-auto max-w-[86rem] px-6 py-5">
      <p className="mb-4 flex items-center gap-2 text-sm text-quiet">
        <Mark /> A run that was shared from Bent Straw, to read.
      </p>
      <RunView page={found.value} actions={null} shared />
    </main>
  );
}
