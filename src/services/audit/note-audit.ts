import type { Facts } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import type { AuditCode } from './audit-codes';

/** Who did it, and from where. */
export interface AuditActor {
  readonly name: string;
  readonly kind: 'technician' | 'script' | 'stranger' | 'machine';
  readonly address: string | null;
}

export interface AuditNote {
  readonly what: AuditCode;
  readonly siteId?: string | null;
  /** Name of what it was done to. */
  readonly subject?: string;
  readonly before?: Facts | null;
  readonly after?: Facts | null;
}

const DAY_MS = 24 * 3600_000;
/** What happened is kept for two years, and never more than this many entries. */
const KEPT_MS = 730 * DAY_MS;
const MOST_ENTRIES = 200_000;
const MOST_LETTERS = 300;
const clip = (text: string) => (text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS)}…` : text);
const clipped = (facts: Facts | null) =>
  facts === null
    ? null
    : Object.fromEntries(
        Object.entries(facts).map(([name, value]) => [name, typeof value === 'string' ? clip(value) : value]),
      );

/** Only what differs is worth reading; where nothing does, all of it. */
function changedFacts(before: Facts | null, after: Facts | null): [Facts | null, Facts | null] {
  if (before === null || after === null) return [before, after];
  const names = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (name) => before[name] !== after[name],
  );
  const only = (facts: Facts) => Object.fromEntries(names.map((name) => [name, facts[name] ?? null]));
  return names.length === 0 ? [null, null] : [only(before), only(after)];
}

/** Writes down what somebody did. Nothing can take it back or change it. */
export async function noteAudit(
  context: ConsoleContext,
  { name, kind, address }: AuditActor,
  { what, siteId = null, subject = '', before = null, after = null }: AuditNote,
): Promise<void> {
  const [was, is] = changedFacts(clipped(before), clipped(after));
  await context.store.audit.add({
    ...{ atMs: context.wallMs(), who: clip(name), whoKind: kind, address, what, siteId },
    ...{ subject: clip(subject), before: was, after: is },
  });
}

export function forgetOldAudit(context: ConsoleContext): Promise<void> {
  return context.store.audit.forget(context.wallMs() - KEPT_MS, MOST_ENTRIES);
}
