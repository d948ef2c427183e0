import {
  deviceForm,
  furnish,
  LINE_FORM,
  openTestConsole,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { boardOf } from '../views/board';
import { saveDevice } from './devices';
import { putLineInUse, removeLine, saveLine } from './lines';
import {
  forgetOldOffices,
  officesRemovedLately,
  putBackOffice,
  removeDemoData,
  removeOffice,
  saveOffice,
} from './offices';
import { undoRemoval } from './removals';
import { setUpOf } from '../views/set-up';
import { crossingOf } from './line-choice';
import { admit } from '../access/visitor';

const DAY_MS = 24 * 3600_000;
const BACKUP = { ...LINE_FORM, lineName: 'Heron Radio 80/20', provider: 'Heron Radio', downMbps: 80, upMbps: 20 };

describe('offices', () => {
  let console: TestConsole;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  const names = async () => (await setUpOf(console.context)).sites.map(({ name }) => name);
  const shop = async () => {
    const made = await saveOffice(console.context, null, 'Quay Street');
    if (!made.ok) throw new Error(made.fault.code);
    return made.value;
  };

  it('are several, each with its own code, devices and peers; only the first has this machine inside', async () => {
    const { id, joinCode } = await shop();
    await saveDevice(console.context, id, null, deviceForm({ name: 'Front counter' }));
    const [first, second] = await Promise.all([setUpOf(console.context, siteId), setUpOf(console.context, id)]);
    expect(first.peers).toHaveLength(2);
    expect(second.peers).toHaveLength(0);
    expect(second.devices.map(({ name }) => name)).toEqual(['Front counter']);
    expect(first.devices).toEqual([]);
    expect(await admit(console.context, { ...STRANGER, code: joinCode })).toMatchObject({ value: { site: { id } } });
  });

  it('have names of their own', async () => {
    await shop();
    expect(await saveOffice(console.context, null, 'quay street')).toMatchObject({ fault: { code: 'name-taken' } });
    expect(await saveOffice(console.context, siteId, 'QUAY STREET')).toMatchObject({ fault: { code: 'name-taken' } });
    expect(await saveOffice(console.context, 'nowhere', 'x')).toMatchObject({ fault: { code: 'site-missing' } });
  });

  it('lie in a zone of their own or in that of the console, and keep it when only the name changes', async () => {
    const { id } = await shop();
    const zone = async () => (await console.context.store.sites.byId(id))!.timeZone;
    expect(await zone()).toBeNull();
    await saveOffice(console.context, id, 'Quay Street', 'Asia/Kathmandu');
    await saveOffice(console.context, id, 'Quay Street 3');
    expect(await zone()).toBe('Asia/Kathmandu');
    await saveOffice(console.context, id, 'Quay Street 3', null);
    expect(await zone()).toBeNull();
  });

  it('that were removed open to nobody, and are put back whole for a day', async () => {
    const { id, joinCode } = await shop();
    await saveDevice(console.context, id, null, deviceForm());
    await removeOffice(console.context, id);
    expect(await names()).toEqual(['Larkspur Bindery']);
    const closed = await admit(console.context, { ...STRANGER, code: joinCode });
    expect(closed).toMatchObject({ fault: { code: 'code-unknown' } });
    expect((await officesRemovedLately(console.context)).map((site) => site.id)).toEqual([id]);
    expect((await putBackOffice(console.context, id)).ok).toBe(true);
    expect((await setUpOf(console.context, id)).devices).toHaveLength(1);

    await removeOffice(console.context, id);
    console.advanceMs(DAY_MS + 1);
    expect(await putBackOffice(console.context, id)).toMatchObject({ fault: { code: 'removal-over' } });
    expect(await officesRemovedLately(console.context)).toEqual([]);
    // Looking deletes nothing; the upkeep does.
    expect(await console.context.store.sites.devicesOf(id)).toHaveLength(1);
    await forgetOldOffices(console.context);
    expect(await console.context.store.sites.devicesOf(id)).toEqual([]);
  });

  it('of the demo go in one step, and the others stay', async () => {
    const site = await shop();
    await console.context.store.sites.saveSite({ ...site, demo: true });
    expect(await removeDemoData(console.context)).toBe(1);
    expect(await names()).toEqual(['Larkspur Bindery']);
  });

  describe('with two lines', () => {
    const backup = async () => {
      const saved = await saveLine(console.context, siteId, null, BACKUP);
      if (!saved.ok) throw new Error(saved.fault.code);
      return saved.value.id;
    };
    const planNow = async (atMs = console.context.wallMs()) =>
      (await crossingOf(console.context, siteId, { reach: 'internet' }, atMs)).plan!.downBps;

    it('use one at a time: a further one only once it is put in use, each with the time of the switch', async () => {
      const id = await backup();
      expect(await planNow()).toBe(500e6);
      console.advanceMs(60_000);
      const atMs = console.context.wallMs();
      await putLineInUse(console.context, siteId, id);
      expect(await planNow()).toBe(80e6);
      expect(await planNow(atMs - 1)).toBe(500e6);
      const { lines, switches } = await setUpOf(console.context);
      expect(lines.map(({ name, inUse }) => [name, inUse])).toEqual([
        ['Heron Radio 80/20', true],
        ['Tarnfell Fibre 500/100', false],
      ]);
      expect(switches[0]).toMatchObject({ lineId: id, atMs });
      await putLineInUse(console.context, siteId, id);
      expect((await setUpOf(console.context)).switches).toHaveLength(2);
      expect(await boardOf(console.context)).toMatchObject({ value: { line: { name: 'Heron Radio 80/20' } } });
    });

    it('remove the one that is not in use, and put it back with its plans', async () => {
      const id = await backup();
      const [inUse] = (await setUpOf(console.context)).lines;
      expect(await removeLine(console.context, siteId, inUse!.id)).toMatchObject({ fault: { code: 'line-in-use' } });
      const before = (await setUpOf(console.context)).lines;
      await removeLine(console.context, siteId, id);
      expect((await setUpOf(console.context)).lines).toHaveLength(1);
      await undoRemoval(console.context, id);
      expect((await setUpOf(console.context)).lines).toEqual(before);
    });

    it('refuse a line of another office, and one name for two', async () => {
      const { id } = await shop();
      const line = await backup();
      expect(await putLineInUse(console.context, id, line)).toMatchObject({ fault: { code: 'line-unknown' } });
      expect(await saveLine(console.context, siteId, null, BACKUP)).toMatchObject({ fault: { code: 'name-taken' } });
    });
  });
});
