import { NEW_DEVICE } from '@/store';
import { cookieOfDevice } from '../access/device-cookie';
import type { ConsoleContext } from '../console/console-context';

const SETTING = 'own-agent-device';

/** How the console's own machine stands by at it. */
export interface OwnAgent {
  readonly deviceId: string;
  readonly name: string;
  readonly officeName: string;
  readonly cookie: string;
}

/** A name that no device of the office has yet. */
function freeName(wanted: string, taken: readonly string[]): string {
  const has = (name: string) => taken.some((each) => each.toLocaleLowerCase() === name.toLocaleLowerCase());
  if (!has(wanted)) return wanted;
  for (let number = 2; ; number += 1) if (!has(`${wanted} ${number}`)) return `${wanted} ${number}`;
}

/**
 * The console's own machine as an agent of the first office, without anybody joining it: so delay, resolvers and paths are known
 * from the first minute. Null while there is no office, in the demo, and once a technician has retired or removed it.
 */
export async function ownAgentOf(context: ConsoleContext, machineName: string): Promise<OwnAgent | null> {
  const { sites, keeping } = context.store;
  const known = (await keeping.setting(SETTING)) as string | undefined;
  if (known === undefined) {
    const site = (await sites.all()).find(({ demo }) => !demo);
    if (site === undefined) return null;
    const devices = await sites.devicesOf(site.id);
    const name = freeName(
      machineName,
      devices.map((device) => device.name),
    );
    const device = { ...NEW_DEVICE, id: context.newId(), siteId: site.id, name, kind: 'box' as const, spotId: null };
    await sites.saveDevice({ ...device, link: { medium: 'unknown' }, cookieAtMs: context.wallMs() });
    await keeping.setSetting(SETTING, device.id);
    context.changes.tell('office', 'presence');
    return ownAgentOf(context, machineName);
  }
  const device = await sites.device(known);
  const site = device === null ? null : await sites.byId(device.siteId);
  // Retired, it has no cookie; removed, it is no device.
  if (device === null || site === null || device.cookieAtMs === null) return null;
  return {
    deviceId: device.id,
    name: device.name,
    officeName: site.name,
    cookie: await cookieOfDevice(context, device.id),
  };
}
