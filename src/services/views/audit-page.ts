import type { AuditEntry } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const PAGE_SIZE = 50;

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
