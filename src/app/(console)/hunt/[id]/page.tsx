import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { huntPageOf, theConsole } from '@/services';
import { FollowChanges } from '@/ui/board/follow-changes';
import { HuntView } from '@/ui/hunt/hunt-view';
import {
  endHuntAction,
  huntNoteAction,
  noteSwapAction,
  resumeHuntAction,
  ruleOutAction,
  runTestAction,
  setQueueAction,
  undoSwapAction,
} from '../actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Hunt' };

export default async function HuntPage({ params }: { readonly params: Promise<{ id: string }> }) {
  await connection();
  const { id } = await params;
  await technicianOrSignIn(`/hunt/${encodeURIComponent(id)}`);
  const found = await huntPageOf(theConsole(), id);
  if (!found.ok)
    return (
      <section className="mt-16 text-center">
        <h1 className="text-xl font-semibold">There is no such hunt</h1>
        <p className="mt-2 text-quiet">
          Its office may have been removed.{' '}
          <Link href="/hunt" className="text-ink underline underline-offset-4">
            All hunts
          </Link>
        </p>
      </section>
    );
  const { siteId } = found.value.hunt;
  return (
    <>
      <FollowChanges />
      <HuntView
        page={found.value}
        actions={{
          run: runTestAction.bind(null, siteId, id),
          noteSwap: noteSwapAction.bind(null, siteId, id),
          undoSwap: undoSwapAction.bind(null, id),
          addNote: huntNoteAction.bind(null, id),
          ruleOut: ruleOutAction.bind(null, id),
          end: endHuntAction.bind(null, id),
          resume: resumeHuntAction.bind(null, id),
          setQueue: setQueueAction.bind(null, siteId, id),
        }}
      />
    </>
  );
}
