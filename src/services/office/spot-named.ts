import type { ConsoleContext } from '../console/console-context';

/** The spot of that name, made if the office has none yet. A blank name is no spot. */
export async function spotNamed(context: ConsoleContext, siteId: string, name: string): Promise<string | null> {
  const wanted = name.trim();
  if (wanted === '') return null;
  const spots = await context.store.sites.spotsOf(siteId);
  const same = spots.find((spot) => spot.name.toLocaleLowerCase() === wanted.toLocaleLowerCase());
  if (same !== undefined) return same.id;
  const id = context.newId();
  await context.store.sites.saveSpot({ id, siteId, name: wanted });
  return id;
}
