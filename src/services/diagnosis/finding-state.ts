import type { StoredFinding } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

async function changed(
  context: ConsoleContext,
  findingId: string,
  changes: Partial<StoredFinding>,
): Promise<Outcome<StoredFinding, 'finding-unknown'>> {
  const finding = await context.store.findings.finding(findingId);
  if (finding === null) return failed('finding-unknown');
  const after = { ...finding, ...changes, changedAtMs: context.wallMs() };
  await context.store.findings.saveFinding(after);
  return done(after);
}

/** A technician lets a finding be, with a reason: it stands out no more, however often it is found. */
export function letBe(
  context: ConsoleContext,
  byName: string,
  { findingId, reason }: { readonly findingId: string; readonly reason: string },
): Promise<Outcome<StoredFinding, 'finding-unknown'>> {
  return changed(context, findingId, { state: 'let-be', reason, byName });
}

/** It stands out again. */
export function openAgain(
  context: ConsoleContext,
  byName: string,
  findingId: string,
): Promise<Outcome<StoredFinding, 'finding-unknown'>> {
  return changed(context, findingId, { state: 'open', reason: '', byName, closedAtMs: null });
}
