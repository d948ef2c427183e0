import type { LaneBeat } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { tellLanes } from './lanes';

/** The agents of an office are told that somebody looks, or that nobody does any more. */
async function tellAll(context: ConsoleContext, siteId: string): Promise<void> {
  for (const { deviceId } of await context.store.agents.ofSite(siteId))
    if (context.standing.isPresent(deviceId)) await tellLanes(context, deviceId);
}

/** Hears what the lanes of an office say from now on. Returns what ends it. */
export async function watchBeats(
  context: ConsoleContext,
  siteId: string,
  onBeats: (beats: readonly LaneBeat[]) => void,
): Promise<() => Promise<void>> {
  const stop = context.beats.listen(siteId, onBeats);
  // Each time: they say anew what no minute holds yet.
  await tellAll(context, siteId);
  return async () => {
    stop();
    if (!context.beats.isWatched(siteId)) await tellAll(context, siteId);
  };
}
