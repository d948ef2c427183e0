import { findingWords } from '@/core';
import type { StoredHunt } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** What a hunt is opened from: a finding, a device that somebody calls slow, or nothing yet. */
export type HuntOrigin = { readonly findingId: string } | { readonly siteId: string; readonly deviceId: string | null };

const sameFocus = (hunt: StoredHunt, focus: StoredHunt['focus']) =>
  hunt.state === 'open' && hunt.focus.findingKey === focus.findingKey && hunt.focus.deviceId === focus.deviceId;

/** Opens a hunt, or gives the open one about the same: two technicians go on with one. */
export async function openHunt(
  context: ConsoleContext,
  byName: string,
  origin: HuntOrigin,
): Promise<Outcome<StoredHunt, 'finding-unknown' | 'device-unknown' | 'site-missing'>> {
  const { findings, sites } = context.store;
  const nowMs = context.wallMs();
  const begun = async (siteId: string, kind: StoredHunt['kind'], title: string, focus: StoredHunt['focus']) => {
    const before = (await findings.huntsOf(siteId)).find((hunt) => sameFocus(hunt, focus));
    if (before !== undefined) return before;
    const hunt: StoredHunt = {
      ...{ id: context.newId(), siteId, kind, title, focus, state: 'open', openedAtMs: nowMs, openedBy: byName },
      ...{ closedAtMs: null, outcome: null },
    };
    await findings.saveHunt(hunt);
    return hunt;
  };
  if ('findingId' in origin) {
    const finding = await findings.finding(origin.findingId);
    if (finding === null) return failed('finding-unknown');
    const { facts, segments, deviceIds } = finding.finding;
    const kind = facts.code === 'queue-too-deep' && facts.where === 'line' ? 'queue' : 'hunt';
    const hunt = await begun(finding.siteId, kind, findingWords(finding.finding).sentence, {
      findingKey: finding.findingKey,
      segmentIds: segments.map(({ id }) => id),
      deviceId: deviceIds.length === 1 ? deviceIds[0] : undefined,
    });
    if (finding.state === 'open')
      await findings.saveFinding({ ...finding, state: 'worked-on', byName, changedAtMs: nowMs });
    return done(hunt);
  }
  if ((await sites.byId(origin.siteId)) === null) return failed('site-missing');
  const device = origin.deviceId === null ? null : await sites.device(origin.deviceId);
  if (origin.deviceId !== null && device?.siteId !== origin.siteId) return failed('device-unknown');
  const title = device === null ? 'Something is slow' : `${device.name} is slow`;
  return done(await begun(origin.siteId, 'hunt', title, { deviceId: device?.id }));
}
