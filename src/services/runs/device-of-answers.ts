import { isDeepStrictEqual } from 'node:util';
import type { Link } from '@/core';
import { NEW_DEVICE, type Device } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type StartRun } from '@/wire';
import { cookieTimes, isTaken, type Becoming } from '../access/device-cookie';
import type { Admission } from '../access/visitor';
import type { ConsoleContext } from '../console/console-context';
import { spotNamed } from '../office/spot-named';

/** Whether whoever asks may be this device: nobody is it yet, he is it himself, or the technician let another one be. */
export function mayBe(device: Device, { knownDeviceId, here }: Admission, nowMs: number): boolean {
  if (!isTaken(device, nowMs) || device.id === knownDeviceId || here) return true;
  // The demo's own devices may be played by anybody.
  return device.simulated || (device.openUntilMs ?? 0) > nowMs;
}

function becomingOf(existing: Device | undefined, { knownDeviceId, here }: Admission): Becoming {
  if (existing?.id === knownDeviceId) return 'itself';
  return here || existing?.simulated === true ? 'beside' : 'instead';
}

/** What whoever asks says of the device that it is. */
export type DeviceAnswers = Pick<StartRun, 'deviceId' | 'deviceName' | 'deviceKind' | 'spotName' | 'link'>;

/** Nothing of the link, or a cable without its rate where one is known. */
function tellsLess(said: Link, known: Link): boolean {
  if (said.medium === 'unknown') return true;
  return said.medium === 'wired' && said.negotiatedBps === null && known.medium === 'wired';
}

async function isAgent({ store }: ConsoleContext, { id }: Device): Promise<boolean> {
  return (await store.agents.byDevice(id)) !== null;
}

/** The device that the answers describe: an existing one, brought up to date, or a new one. */
export async function deviceOfAnswers(
  context: ConsoleContext,
  admission: Admission,
  address: string | null,
  order: DeviceAnswers,
): Promise<Outcome<Device, ConsoleFaultCode>> {
  const { site, bound } = admission;
  const { sites } = context.store;
  const nowMs = context.wallMs();
  const devices = await sites.devicesOf(site.id);
  // By whatever id it was known before.
  const knownId = order.deviceId === null ? null : ((await sites.device(order.deviceId))?.id ?? null);
  const existing = devices.find((device) => device.id === knownId);
  if (order.deviceId !== null && existing === undefined) return failed('device-unknown');
  if (bound !== null && existing?.id !== bound) return failed('device-not-yours');
  if (existing !== undefined && !mayBe(existing, admission, nowMs))
    return failed('device-taken', { device: existing.name });
  const name = order.deviceName ?? existing?.name;
  if (name === undefined) return failed('request-malformed', { complaint: 'deviceName: give it a name' });
  const namesake = devices.find((device) => device.name.toLocaleLowerCase() === name.toLocaleLowerCase());
  if (namesake !== undefined && namesake.id !== existing?.id) {
    const free = existing !== undefined || mayBe(namesake, admission, nowMs);
    return free ? failed('name-taken', { what: 'device', name }) : failed('device-taken', { device: namesake.name });
  }
  if (existing === undefined) {
    const { devicesOfAddress, devicesOfOffice } = context.uses;
    const seconds = devicesOfAddress.use(address ?? 'unknown', nowMs) ?? devicesOfOffice.use(site.id, nowMs);
    if (seconds !== null) return failed('too-many-devices', { seconds });
  }
  const spotId =
    order.spotName === null ? (existing?.spotId ?? null) : await spotNamed(context, site.id, order.spotName);
  // An agent that cannot tell how it is connected says nothing against what a technician wrote down.
  const isSilent = existing !== undefined && tellsLess(order.link, existing.link) && (await isAgent(context, existing));
  const fresh = { ...NEW_DEVICE, id: context.newId(), siteId: site.id, kind: order.deviceKind };
  const device: Device = {
    ...(existing ?? fresh),
    ...{ spotId, name, link: isSilent ? existing.link : order.link },
    // The answer gives a cookie: from now on this browser is the device.
    ...cookieTimes(existing, becomingOf(existing, admission), nowMs),
    openUntilMs: null,
  };
  if (!isDeepStrictEqual(device, existing)) await sites.saveDevice(device);
  return done(device);
}
