import { NEW_DEVICE, type Device } from '@/store';
import { type ConsoleFaultCode, type DeviceForm, done, failed, linkOfForm, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { spotNamed } from './spot-named';

export async function saveDevice(
  context: ConsoleContext,
  siteId: string,
  deviceId: string | null,
  form: DeviceForm,
): Promise<Outcome<Device, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const devices = await sites.devicesOf(siteId);
  const existing = devices.find((device) => device.id === deviceId);
  if (deviceId !== null && existing === undefined) return failed('device-unknown');
  const namesake = devices.find((device) => device.name.toLocaleLowerCase() === form.name.toLocaleLowerCase());
  if (namesake !== undefined && namesake.id !== deviceId)
    return failed('name-taken', { what: 'device', name: form.name });
  const device: Device = {
    ...(existing ?? NEW_DEVICE),
    ...{ id: existing?.id ?? context.newId(), siteId, name: form.name },
    ...{ spotId: await spotNamed(context, siteId, form.spotName), kind: form.kind, notes: form.notes },
    link: linkOfForm(form),
  };
  await sites.saveDevice(device);
  return done(device);
}

/** So long another browser may become a device that one is already, ms. */
const OPEN_MS = 3600_000;

/** The technician lets another browser become this device: the old one lost its cookie, or was replaced. */
export async function openDevice(context: ConsoleContext, deviceId: string): Promise<Outcome<null, 'device-unknown'>> {
  const { sites } = context.store;
  const device = await sites.device(deviceId);
  if (device === null) return failed('device-unknown');
  await sites.saveDevice({ ...device, openUntilMs: context.wallMs() + OPEN_MS });
  return done(null);
}

/**
 * Two entries turned out to be one device: the runs of the first become the second's, and the browser or agent that
 * knows itself as the first is known as the second from now on. Can be undone for a day.
 */
export async function mergeDevices(
  context: ConsoleContext,
  fromId: string,
  intoId: string,
): Promise<Outcome<Device, 'device-unknown'>> {
  const { sites, removals } = context.store;
  const [from, into] = await Promise.all([sites.device(fromId), sites.device(intoId)]);
  if (from === null || into === null || from.id === into.id || from.siteId !== into.siteId)
    return failed('device-unknown');
  const { id, siteId, name } = from;
  const removedAtMs = context.wallMs();
  await removals.mergeDevices({ id, siteId, kind: 'device', name, removed: from, removedAtMs }, into.id);
  context.standing.dismiss(id, 'removed');
  context.changes.tell('office', 'runs');
  return done(into);
}
