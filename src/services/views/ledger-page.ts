import type { LinkKind } from '@/core';
import type { LedgerRun } from '@/store';
import { done, failed, type LedgerPage, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { ledgerOf, type LedgerQuery } from './ledger';

/** A slice of the ledger as the API gives it. */
export async function ledgerPageOf(
  context: ConsoleContext,
  query: LedgerQuery,
): Promise<Outcome<LedgerPage, 'site-missing'>> {
  const found = await ledgerOf(context, query);
  if (!found.ok) return found;
  // Whoever names an office is not told of another one.
  if (query.siteId !== undefined && query.siteId !== found.value.site.id) return failed('site-missing');
  const { count, isMore, next, runs, faults } = found.value;
  return done({
    ...{ total: count, isMore, next },
    leftOut: faults.map(({ typed, code }) => ({ typed, code })),
    runs: runs.map(ledgerRunOf),
  });
}

/** A run as the API lists it. */
export function ledgerRunOf(
  run: Omit<LedgerRun, 'tags'> & Partial<Pick<LedgerRun, 'tags'>>,
): LedgerPage['runs'][number] {
  return {
    id: run.id,
    setId: run.setId,
    startedAt: new Date(run.startedAtMs).toISOString(),
    status: run.status,
    reason: run.reason,
    device: run.deviceName,
    spot: run.spotName,
    peer: run.peerName,
    line: run.lineName,
    reach: run.reach,
    linkKind: run.linkKind as LinkKind,
    profile: run.profile,
    verdict: run.verdict,
    evidence: run.evidence,
    leftOutBecause: run.leftOut,
    flags: run.flags.split(' ').filter((code) => code !== ''),
    tags: [...(run.tags ?? [])],
    notes: run.notes,
    downBps: run.downBps,
    upBps: run.upBps,
    idleMs: run.idleMs,
    addedMs: run.addedMs,
  };
}
