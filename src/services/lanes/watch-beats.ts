import type { ConsoleContext } from '../console/console-context';
import type { HeardNow } from '../console/lane-beats';
import { tellLanes } from './lanes';

/** Whoever keeps lanes of an office is told that somebody looks, or that nobody does any more. */
async function tellAll(context: ConsoleContext, siteId: string): Promise<void> {
  const [agents, lanes] = await Promise.all([context.store.agents.ofSite(siteId), context.store.lanes.ofSite(siteId)]);
  for (const deviceId of new Set([...agents, ...lanes].map(({ deviceId: id }) => id)))
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
