import type { Site } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** The office that was chosen, or the first where none was or the chosen one is gone; null before there is one. */
export async function siteOf(context: ConsoleContext, siteId?: string): Promise<Site | null> {
  const all = await context.store.sites.all();
  return all.find((site) => site.id === siteId) ?? all[0] ?? null;
}
