import type { ConsoleContext } from '../console/console-context';
import { reachableOrigin } from '../office/reachable-addresses';

/** A label as it is printed. */
export interface ShownLabel {
  readonly id: string;
  readonly address: string;
  readonly deviceName: string | null;
  readonly spotName: string | null;
}

/** The labels of an office that open something, spots before devices. */
export async function labelsOf(context: ConsoleContext, siteId: string): Promise<ShownLabel[]> {
  const { sites, findings } = context.store;
  const [labels, spots, devices] = await Promise.all([
    findings.labelsOf(siteId),
    sites.spotsOf(siteId),
    sites.devicesOf(siteId),
  ]);
  return labels
    .map(({ id, spotId, deviceId }) => ({
      ...{ id, address: `${reachableOrigin(context.port)}/l/${id}` },
      deviceName: devices.find((device) => device.id === deviceId)?.name ?? null,
      spotName: spots.find((spot) => spot.id === spotId)?.name ?? null,
      ofDevice: deviceId !== null,
    }))
    .filter(({ deviceName, ofDevice }) => !ofDevice || deviceName !== null)
    .sort((a, b) => Number(a.ofDevice) - Number(b.ofDevice) || (a.spotName ?? '').localeCompare(b.spotName ?? ''))
    .map(({ id, address, deviceName, spotName }) => ({ id, address, deviceName, spotName }));
}
