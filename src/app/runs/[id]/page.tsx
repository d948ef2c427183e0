import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { currentRole, technicianOrSignIn } from '@/app/role';
import { maySeeRun, reachableOrigin, runPageOf, theConsole } from '@/services';
import { RunView } from '@/ui/run/run-view';
import { saveNotesAction, shareRunAction, stopSharingAction } from './actions';

export const metadata: Metadata = { title: 'Run' };

export default async function RunPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [role, found] = await Promise.all([currentRole(), runPageOf(theConsole(), id)]);
  // A stranger is not told whether there is such a run.
  if (!found.ok || !maySeeRun(role, found.value.run)) {
    await technicianOrSignIn(`/runs/${encodeURIComponent(id)}`);
    notFound();
  }
  const actions = {
    reachableOrigin: reachableOrigin(theConsole().port),
    saveNotes: saveNotesAction.bind(null, id),
    share: shareRunAction.bind(null, id),
    stopSharing: stopSharingAction.bind(null, id),
  };
  return <RunView page={found.value} actions={role.kind === 'technician' ? actions : null} />;
}
