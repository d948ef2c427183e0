import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { runPageOf, theConsole } from '@/services';
import { RunView } from '@/ui/run/run-view';

export const metadata: Metadata = { title: 'Run' };

export default async function RunPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const found = await runPageOf(theConsole(), (await params).id);
  if (!found.ok) notFound();
  return <RunView page={found.value} />;
}
