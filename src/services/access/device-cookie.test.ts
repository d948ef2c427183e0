import { NO_SAMPLES } from '@/core';
import {
  cookieFor,
  deviceForm,
  finished,
  furnish,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { renewEndedCodes } from '.';
import { cookieOfDevice, deviceCookieValue, deviceOfCookie } from './device-cookie';
import { handInRun } from '../runs/hand-in-run';
import { mergeDevices, openDevice, saveDevice } from '../office/devices';

const DAY_MS = 24 * 3600_000;
const ORIGIN = 'http://192.0.2.20:4870';

describe('a device’s cookie', () => {
  let console: TestConsole;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  /** As a device that has this cookie, or none yet, asks for a run; the cookie that the answer gives. */
  async function asks(cookie: string | null, deviceId: string | null = null): Promise<string> {
    await renewEndedCodes(console.context);
    const code = (await console.context.store.sites.byId(siteId))!.joinCode;
    const order = orderFor(code, deviceId === null ? {} : { deviceId, deviceName: null });
    const started = await startRun(console.context, { ...STRANGER, code, cookie }, order, ORIGIN);
    if (!started.ok) throw new Error(started.fault.code);
    await handInRun(console.context, started.value.runId, started.value.runKey, finished(NO_SAMPLES));
    return cookieOfDevice(console.context, started.value.deviceId);
  }
  const known = async (cookie: string) => (await deviceOfCookie(console.context, cookie))?.name ?? null;
  const idIn = (cookie: string) => cookie.split('.')[0]!;

  it('stays the same within a day, and is replaced by the first run of a later one', async () => {
    const first = await asks(null);
    console.advanceMs(DAY_MS);
    expect(await asks(first, idIn(first))).toBe(first);
    console.advanceMs(1);
    const second = await asks(first, idIn(first));
    expect(second).not.toBe(first);
    expect(await known(second)).toBe('Press desk');
  });

  it('holds a day longer where the answer with the new one was lost, and then no more', async () => {
    const first = await asks(null);
    console.advanceMs(2 * DAY_MS);
    const second = await asks(first, idIn(first));
    expect(await known(first)).toBe('Press desk');
    // It asks again with the old one: it gets the new one, not a third.
    expect(await asks(first, idIn(first))).toBe(second);
    console.advanceMs(DAY_MS + 1);
    expect(await known(first)).toBeNull();
    expect(await known(second)).toBe('Press desk');
  });

  it('ends after 90 days without a run; the device is free then', async () => {
    const cookie = await asks(null);
    console.advanceMs(90 * DAY_MS);
    expect(await known(cookie)).toBe('Press desk');
    console.advanceMs(1);
    expect(await known(cookie)).toBeNull();
    expect(await known(await asks(null, idIn(cookie)))).toBe('Press desk');
  });

  it('of before ends at once where the technician let another browser take the place', async () => {
    const before = await asks(null);
    console.advanceMs(1000);
    await openDevice(console.context, idIn(before));
    const taken = await asks(null, idIn(before));
    expect(await known(taken)).toBe('Press desk');
    expect(await known(before)).toBeNull();
  });

  it('of the time when none said when it was given holds until the device has a new one', async () => {
    const saved = await saveDevice(console.context, siteId, null, deviceForm({ name: 'Attic box' }));
    if (!saved.ok) throw new Error(saved.fault.code);
    const undated = deviceCookieValue(console.context, saved.value.id).replace('.0.', '.');
    expect(await known(undated)).toBeNull();
    const migrated = { ...saved.value, cookieAtMs: console.context.wallMs() - 3 * DAY_MS, cookieBeforeMs: 0 };
    await console.context.store.sites.saveDevice(migrated);
    expect(await known(undated)).toBe('Attic box');
    const dated = await asks(undated, saved.value.id);
    expect(await known(dated)).toBe('Attic box');
    expect(await known(undated)).toBeNull();
  });

  it('cannot be made older or younger, nor be another device’s', async () => {
    const cookie = await asks(null);
    const [id, given, proof] = cookie.split('.');
    for (const forged of [`${id}.${Number(given) + 1}.${proof}`, `${id}.0.${proof}`, `x.${given}.${proof}`, `${id}..`])
      expect(await known(forged)).toBeNull();
  });

  it('goes on as the other device after a merger', async () => {
    const cookie = await asks(null);
    const saved = await saveDevice(console.context, siteId, null, deviceForm({ name: 'Attic box' }));
    if (!saved.ok) throw new Error(saved.fault.code);
    await mergeDevices(console.context, idIn(cookie), saved.value.id);
    expect(await known(cookie)).toBe('Attic box');
    expect(await known(await cookieFor(console, saved.value.id))).toBe('Attic box');
  });
});
