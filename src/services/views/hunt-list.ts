import type { StoredHunt } from '@/store';
import type { ConsoleContext } from '../console/console-context';

export interface HuntLine {
  readonly id: string;
  readonly title: string;
  readonly state: StoredHunt['state'];
  readonly openedAtMs: number;
  readonly openedBy: string;
  readonly closedAtMs: number | null;
}

/** All hunts of an office, the open ones first. */
export async function huntsOf(context: ConsoleContext, siteId: string): Promise<HuntLine[]> {
  const hunts = await context.store.findings.huntsOf(siteId);
  const open = (state: string) => (state === 'open' ? 0 : 1);
  return hunts
    .sort((a, b) => open(a.state) - open(b.state) || b.openedAtMs - a.openedAtMs)
    .map(({ id, title, state, openedAtMs, openedBy, closedAtMs }) => ({
      ...{ id, title, state, openedAtMs, openedBy, closedAtMs },
    }));
}
