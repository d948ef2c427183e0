import type { StoredLabel } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import { newLabelId } from '../access/join-codes';
import type { ConsoleContext } from '../console/console-context';

/** Gives every spot of an office a label, and every device: those that have one keep it. How many are new. */
export async function makeLabels(context: ConsoleContext, siteId: string): Promise<Outcome<number, 'site-missing'>> {
  const { sites, findings } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const [spots, devices, labels] = await Promise.all([
    sites.spotsOf(siteId),
    sites.devicesOf(siteId),
    findings.labelsOf(siteId),
  ]);
  const wanted: Pick<StoredLabel, 'spotId' | 'deviceId'>[] = [
    ...spots.map(({ id }) => ({ spotId: id, deviceId: null })),
    ...devices.map(({ id, spotId }) => ({ spotId, deviceId: id })),
  ];
  const missing = wanted.filter(
    ({ spotId, deviceId }) =>
      !labels.some((label) => label.deviceId === deviceId && (deviceId !== null || label.spotId === spotId)),
  );
  for (const place of missing)
    await findings.saveLabel({
      ...{ id: newLabelId(), siteId, ...place, createdAtMs: context.wallMs(), revokedAtMs: null },
    });
  return done(missing.length);
}

/** The labels of an office open nothing from now on; new ones may be made. How many there were. */
export async function revokeLabels(context: ConsoleContext, siteId: string): Promise<Outcome<number, 'site-missing'>> {
  const { sites, findings } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const labels = await findings.labelsOf(siteId);
  for (const label of labels) await findings.saveLabel({ ...label, revokedAtMs: context.wallMs() });
  return done(labels.length);
}
