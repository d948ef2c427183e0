import { CHECK_CODES, type CheckCode } from '@/core';
import type { StoredHuntStep } from '@/store';

/** What was ruled out today may run again tomorrow. */
const HOLDS_MS = 24 * 3600_000;

/** What stands as ruled out in a hunt, by its steps: the last word on each, of the last day. */
export function ruledOutIn(steps: readonly StoredHuntStep[], nowMs: number): ReadonlySet<CheckCode> {
  const stands = new Set<CheckCode>();
  for (const { kind, facts, atMs } of [...steps].sort((a, b) => a.atMs - b.atMs)) {
    const check = CHECK_CODES.find((code) => code === facts['check']);
    if (check === undefined || atMs < nowMs - HOLDS_MS) continue;
    if (kind === 'ruled-out') stands.add(check);
    if (kind === 'not-ruled-out') stands.delete(check);
  }
  return stands;
}
