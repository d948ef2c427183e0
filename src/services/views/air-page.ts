import { airByAccessPoint, airBySpot, type AccessPointAir, type AirFound, type AirRun, type SpotAir } from '@/core';
import type { StoredAirRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const DAY_MS = 24 * 3600_000;
/** What is older says little of where access points and furniture stand now. */
export const AIR_DAYS = 90;

/** What a radio heard last. */
export interface HeardAir {
  readonly deviceName: string;
  readonly atMs: number;
  readonly found: AirFound;
}

export interface AirPage {
  /** Null: no radio has listened yet. */
  readonly heard: HeardAir | null;
  /** Agents that stand by and know how to listen; whether they have a radio they say when they are asked. */
  readonly listeners: readonly { readonly deviceId: string; readonly name: string }[];
  readonly spots: readonly SpotAir[];
  readonly accessPoints: readonly AccessPointAir[];
}

/** Where one run is evidence of the air; null: it went another way after all. */
function airRunOf({ link, ...run }: StoredAirRun): AirRun | null {
  if (link.medium !== 'wifi') return null;
  return {
    ...run,
    ...{ band: link.band, accessPoint: link.accessPoint ?? null, linkRateBps: link.linkRateBps },
    signalDbm: link.signalDbm ?? null,
  };
}

/** The air of an office: which channel is quiet, and how each spot and device hears its access point. */
export async function airPageOf(context: ConsoleContext, siteId: string): Promise<AirPage> {
  const { air, agents, looks, sites } = context.store;
  const [stored, heard, found, devices] = await Promise.all([
    air.runsOf(siteId, context.wallMs() - AIR_DAYS * DAY_MS),
    looks.newestOf(siteId, 'air'),
    agents.ofSite(siteId),
    sites.devicesOf(siteId),
  ]);
  const runs = stored.map(airRunOf).filter((run) => run !== null);
  const nameOf = (deviceId: string) => devices.find(({ id }) => id === deviceId)?.name ?? '';
  return {
    heard:
      heard?.outcome?.ok === true && heard.outcome.found.what === 'air'
        ? { deviceName: heard.deviceName, atMs: heard.endedAtMs ?? heard.askedAtMs, found: heard.outcome.found }
        : null,
    listeners: found
      .filter(({ deviceId, can }) => can.includes('air') && context.standing.isPresent(deviceId))
      .map(({ deviceId }) => ({ deviceId, name: nameOf(deviceId) })),
    spots: airBySpot(runs),
    accessPoints: airByAccessPoint(runs),
  };
}
