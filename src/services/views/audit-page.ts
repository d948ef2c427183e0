import type { AuditEntry } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const PAGE_SIZE = 50;
const DAY_MS = 24 * 3600_000;
/** What happened is kept for two years, and never more than this many entries. */
const KEPT_MS = 730 * DAY_MS;
const MOST_ENTRIES = 200_000;

export interface AuditQuery {
  readonly beforeId: number | null;
  readonly who: string | null;
  readonly whats: readonly string[] | null;
}

export interface AuditPage {
  /** The newest first. */
  readonly entries: readonly AuditEntry[];
  /** Where the next page begins; null: there is no older one. */
  readonly nextBeforeId: number | null;
  /** Everybody who has done something. */
  readonly names: readonly string[];
  /** Id of an office → its name, for those that still stand. */
  readonly siteNames: Readonly<Record<string, string>>;
}

export async function auditPageOf(context: ConsoleContext, query: AuditQuery): Promise<AuditPage> {
  const { audit, sites } = context.store;
  const [found, names, all] = await Promise.all([audit.page(query, PAGE_SIZE + 1), audit.names(), sites.all()]);
  const entries = found.slice(0, PAGE_SIZE);
  return {
    entries,
    nextBeforeId: found.length > PAGE_SIZE ? entries.at(-1)!.id : null,
    names: names.filter((name) => name !== ''),
    siteNames: Object.fromEntries(all.map(({ id, name }) => [id, name])),
  };
}

export function forgetOldAudit(context: ConsoleContext): Promise<void> {
  return context.store.audit.forget(context.wallMs() - KEPT_MS, MOST_ENTRIES);
}
