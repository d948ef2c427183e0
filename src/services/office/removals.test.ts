import {
  cookieFor,
  deviceForm,
  furnish,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { deviceOfCookie } from '../access/device-cookie';
import { removeDevice, removedLately, removePeer, undoRemoval } from './removals';
import { saveDevice } from './devices';
import { setUpOf } from '../views/set-up';

describe('removing with undo', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  const names = async () => (await setUpOf(console.context)).devices.map(({ name }) => name);
  const press = async () => {
    const saved = await saveDevice(console.context, siteId, null, deviceForm());
    if (!saved.ok) throw new Error(saved.fault.code);
    return saved.value;
  };

  it('puts a device back as it was, with its spot, its link and its cookie', async () => {
    const device = await press();
    const cookie = await cookieFor(console, device.id);
    const before = await setUpOf(console.context);
    await removeDevice(console.context, device.id);
    expect(await names()).toEqual([]);
    expect(await deviceOfCookie(console.context, cookie)).toBeNull();
    const [removed] = await removedLately(console.context, siteId);
    expect(removed).toMatchObject({ kind: 'device', name: 'Press desk' });
    expect(await undoRemoval(console.context, removed!.id)).toEqual({ ok: true, value: null });
    expect((await setUpOf(console.context)).devices).toEqual(before.devices);
    expect(await deviceOfCookie(console.context, cookie)).toMatchObject({ id: device.id });
    expect(await removedLately(console.context, siteId)).toEqual([]);
  });

  it('leaves the runs of a removed device as they are', async () => {
    const run = await startRun(console.context, { ...STRANGER, code }, orderFor(code), 'http://192.0.2.20:4870');
    if (!run.ok) throw new Error(run.fault.code);
    await removeDevice(console.context, run.value.deviceId);
    expect(await console.context.store.runs.byId(run.value.runId)).toMatchObject({ deviceName: 'Press desk' });
  });

  it('puts a peer back, and what is removed twice is put back once', async () => {
    await removePeer(console.context, 'outside');
    expect((await setUpOf(console.context)).peers.map(({ name }) => name)).toEqual(['this machine']);
    await undoRemoval(console.context, 'outside');
    expect((await setUpOf(console.context)).peers).toHaveLength(2);
    expect(await undoRemoval(console.context, 'outside')).toMatchObject({ fault: { code: 'removal-over' } });
  });

  it('does not put back what would take the name of another', async () => {
    const device = await press();
    await removeDevice(console.context, device.id);
    await press();
    expect(await undoRemoval(console.context, device.id)).toMatchObject({ fault: { code: 'name-taken' } });
    expect(await names()).toEqual(['Press desk']);
  });

  it('can be undone for a day', async () => {
    const device = await press();
    await removeDevice(console.context, device.id);
    console.advanceMs(24 * 3600_000 + 1);
    expect(await undoRemoval(console.context, device.id)).toMatchObject({ fault: { code: 'removal-over' } });
    expect(await removedLately(console.context, siteId)).toEqual([]);
  });
});
