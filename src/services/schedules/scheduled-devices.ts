import type { ScheduledFor } from '@/core';
import type { Device, StoredSchedule } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const fits = (who: ScheduledFor, { id, spotId, kind }: Device, isAgent: boolean): boolean => {
  switch (who.kind) {
    case 'device':
      return id === who.deviceId;
    case 'spot':
      return isAgent && spotId === who.spotId;
    case 'device-kind':
      return isAgent && kind === who.deviceKind;
    case 'office':
      return isAgent;
  }
};

/** The devices that a schedule is for now: the one that it names, or the agents that it means. */
export async function scheduledDevices(
  { store }: ConsoleContext,
  { siteId, who }: Pick<StoredSchedule, 'siteId' | 'who'>,
): Promise<Device[]> {
  const [devices, agents] = await Promise.all([store.sites.devicesOf(siteId), store.agents.ofSite(siteId)]);
  const isAgent = new Set(agents.map(({ deviceId }) => deviceId));
  return devices.filter((device) => fits(who, device, isAgent.has(device.id)));
}
