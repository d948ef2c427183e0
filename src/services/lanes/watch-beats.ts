import type { ConsoleContext } from '../console/console-context';
import type { HeardNow } from '../console/lane-beats';
import { tellLanes } from './lanes';

/** The agents of an office are told that somebody looks, or that nobody does any more. */
async function tellAll(context: ConsoleContext, siteId: string): Promise<void> {
  for (const { deviceId } of await context.store.agents.ofSite(siteId))
    if (context.standing.isPresent(deviceId)) await tellLanes(context, deviceId);
}

/** Hears what the lanes and the runs of an office say from now on. Returns what ends it. */
export async function watchBeats(
  context: ConsoleContext,
  siteId: string,
  onHeard: (heard: HeardNow) => void,
): Promise<() => Promise<void>> {
  const stop = context.beats.listen(siteId, onHeard);
  // Each time: they say anew what no minute holds yet.
  await tellAll(context, siteId);
  return async () => {
    stop();
    if (!context.beats.isWatched(siteId)) await tellAll(context, siteId);
  };
}
