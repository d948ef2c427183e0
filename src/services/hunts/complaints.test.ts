import { furnish, openTestConsole, orderFor, STRANGER, type TestConsole } from '../console/console-for-tests';
import { makeLabels, revokeLabels } from '../office/labels';
import { saveDevice } from '../office/devices';
import { deviceForm } from '../console/console-for-tests';
import { joinPageOf } from '../views/join-page';
import { labelsOf } from '../views/labels-page';
import { standsOut } from '../views/stands-out';
import { askForRun } from '../turns';
import { noteComplaint, seeComplaint } from './complaints';

const ORIGIN = 'http://192.0.2.20:4870';

describe('a label', () => {
  let console: TestConsole;
  let siteId: string;
  let joinCode: string;
  let label: string;
  const scanned = (address = '192.0.2.61') => ({ ...STRANGER, code: label, address });
  const said = (address?: string) =>
    noteComplaint(console.context, scanned(address), {
      ...{ code: label, what: 'calls', deviceName: 'somebody’s phone', spotName: 'Glue room' },
    });
  const complaints = async () =>
    (await standsOut(console.context, siteId, await console.context.store.sites.devicesOf(siteId))).complaints;

  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code: joinCode } = await furnish(console));
    await saveDevice(console.context, siteId, null, deviceForm({ name: 'Glue room tablet', spotName: 'Glue room' }));
    await makeLabels(console.context, siteId);
    label = (await labelsOf(console.context, siteId)).find(({ deviceName }) => deviceName === null)!.id;
  });
  afterEach(() => console.close());

  it('is made once for each spot and each device, and not again', async () => {
    expect((await labelsOf(console.context, siteId)).map(({ deviceName, spotName }) => [deviceName, spotName])).toEqual(
      [
        [null, 'Glue room'],
        ['Glue room tablet', 'Glue room'],
      ],
    );
    expect(await makeLabels(console.context, siteId)).toMatchObject({ value: 0 });
  });

  it('opens the page with its place filled in, and tells no code', async () => {
    const page = await joinPageOf(console.context, scanned());
    expect(page).toMatchObject({ ok: true, value: { code: label, label: { spotName: 'Glue room', deviceId: null } } });
    expect(JSON.stringify(page)).not.toContain(joinCode);
  });

  it('lets a run begin, as a code does', async () => {
    const order = orderFor(label, { deviceName: 'somebody’s phone', reach: 'local' });
    expect(await askForRun(console.context, scanned(), order, ORIGIN)).toMatchObject({ ok: true });
  });

  it('lets somebody say that it is slow: on the board until a technician has seen it, a day at most', async () => {
    expect((await said()).ok).toBe(true);
    const [complaint] = await complaints();
    expect(complaint).toMatchObject({ deviceName: 'somebody’s phone', spotName: 'Glue room', what: 'calls' });
    await seeComplaint(console.context, complaint!.id);
    expect(await complaints()).toEqual([]);
    await said('192.0.2.62');
    console.advanceMs(25 * 3600_000);
    expect(await complaints()).toEqual([]);
  });

  it('is heard four times in ten minutes from one address, then says when again', async () => {
    for (let time = 0; time < 4; time += 1) expect((await said()).ok).toBe(true);
    expect(await said()).toMatchObject({ fault: { code: 'label-busy', facts: { minutes: 10 } } });
    expect((await said('192.0.2.99')).ok).toBe(true);
    console.advanceMs(11 * 60_000);
    expect((await said()).ok).toBe(true);
  });

  it('opens nothing once it is revoked, and guessing one ends in waiting', async () => {
    await revokeLabels(console.context, siteId);
    expect(await joinPageOf(console.context, scanned())).toMatchObject({ fault: { code: 'label-unknown' } });
    expect(await said('192.0.2.77')).toMatchObject({ fault: { code: 'label-unknown' } });
    const guess = () => joinPageOf(console.context, { ...scanned('192.0.2.88'), code: 'L222222222222' });
    const codes = [];
    for (let time = 0; time < 40; time += 1) {
      const page = await guess();
      codes.push(page.ok ? null : page.fault.code);
    }
    expect(codes[0]).toBe('label-unknown');
    expect(codes.at(-1)).toBe('too-many-tries');
  });
});
