import type { Device } from '@/store';
import type { LaneBeat } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Whoever looks hears what a machine says of its lanes just now; of those of others it has nothing to say. */
export async function tellBeats(
  context: ConsoleContext,
  { id, siteId }: Pick<Device, 'id' | 'siteId'>,
  beats: readonly LaneBeat[],
): Promise<void> {
  if (!context.beats.isWatched(siteId)) return;
  const own = new Set((await context.store.lanes.ofDevice(id)).map((lane) => lane.id));
  const told = beats.filter(([laneId]) => own.has(laneId));
  if (told.length > 0) context.beats.tell(siteId, { kind: 'beats', beats: told });
}
