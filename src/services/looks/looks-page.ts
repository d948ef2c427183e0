import type { StoredLook } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const MOST_SHOWN = 25;

/** A machine that can be asked to look. */
export interface LookingMachine {
  readonly deviceId: string;
  readonly name: string;
  readonly present: boolean;
  readonly can: readonly string[];
}

/** What the network brings to a machine, by its newest run inside, bits per second; null: not measured. */
export interface InsideRates {
  readonly downBps: number | null;
  readonly upBps: number | null;
}

export interface LooksPage {
  readonly machines: readonly LookingMachine[];
  /** The newest first. */
  readonly looks: readonly (StoredLook & { readonly inside: InsideRates | null })[];
}

/** What the network brings inside to a device, by its newest run there that counts. */
export async function insideRatesOf({ store }: ConsoleContext, deviceId: string): Promise<InsideRates | null> {
  return store.looks.insideRates(deviceId);
}

/** The machines of an office that can be asked to look at something, and what was looked at. */
export async function looksPageOf(context: ConsoleContext, siteId: string): Promise<LooksPage> {
  const { agents, sites, looks } = context.store;
  const [found, devices, stored] = await Promise.all([
    agents.ofSite(siteId),
    sites.devicesOf(siteId),
    looks.ofSite(siteId, MOST_SHOWN),
  ]);
  return {
    machines: found.map(({ deviceId, can }) => ({
      ...{ deviceId, can, name: devices.find(({ id }) => id === deviceId)?.name ?? '' },
      present: context.standing.isPresent(deviceId),
    })),
    looks: await Promise.all(
      stored.map(async (look) => ({
        ...look,
        inside: look.asked.what === 'share' ? await insideRatesOf(context, look.deviceId) : null,
      })),
    ),
  };
}
