import type { LinkKind } from '@/core';
import type { RunLine } from '@/store';
import { done, type LedgerPage, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { ledgerOf, type LedgerQuery } from './ledger';

/** A page of the ledger as the API gives it. */
export async function ledgerPageOf(
  context: ConsoleContext,
  query: LedgerQuery,
): Promise<Outcome<LedgerPage, 'site-missing'>> {
  const found = await ledgerOf(context, query);
  if (!found.ok) return found;
  const { total, older, newer, runs } = found.value;
  return done({
    total,
    older,
    newer,
    runs: runs.map(ledgerRunOf),
  });
}

/** A run as the API lists it. */
export function ledgerRunOf(run: RunLine): LedgerPage['runs'][number] {
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
    downBps: run.downBps,
    upBps: run.upBps,
    idleMs: run.idleMs,
    addedMs: run.addedMs,
  };
}
