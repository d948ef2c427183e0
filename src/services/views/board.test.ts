import { refreshDiagnosis } from '../diagnosis';
import { boardOf } from './board';
import type { BoardFilter } from './board-filter';
import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { mergeDevices } from '../office/devices';
import { removedLately, removeDevice, undoRemoval } from '../office/removals';

const SLOW = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 120e6 } };

describe('the board', () => {
  let console: TestConsole;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ code } = await furnish(console));
  });
  afterEach(() => console.close());

  const board = async (filter: BoardFilter = {}) => {
    const found = await boardOf(console.context, undefined, filter);
    if (!found.ok) throw new Error(found.fault.code);
    return found.value;
  };
  /** Device → what stands in each of its places that holds something. */
  const shown = async (filter?: BoardFilter) =>
    Object.fromEntries(
      (await board(filter)).groups
        .flatMap(({ rows }) => rows)
        .map((row) => [row.deviceName, row.cells.flatMap(({ cell, kept }) => (cell && kept ? [cell.verdict] : []))]),
    );

  const idOf = async (name: string) => (await board()).devices.find((device) => device.deviceName === name)!.deviceId;

  it('shows the newest set of each place by its median, and an older set nowhere', async () => {
    const { deviceId } = await measured(console, orderFor(code));
    const again = orderFor(code, { deviceId, deviceName: null });
    for (const line of [GOOD_LINE, SLOW]) await measured(console, again, line);
    const cells = (await board()).groups[0]!.rows[0]!.cells.flatMap(({ cell }) => cell ?? []);
    expect(cells).toMatchObject([{ count: 3, verdict: 'full' }]);
    expect(cells[0]!.downBps! / 486e6).toBeCloseTo(1, 1);
    expect(cells[0]!.spreadDownBps! / 366e6).toBeCloseTo(1, 1);
    // Half a day later it is another set, though everything else is the same.
    console.advanceMs(13 * 3600_000);
    await measured(console, again, SLOW);
    expect(await shown()).toEqual({ 'Press desk': ['starved'] });
  });

  it('shows what has changed since it was last looked at', async () => {
    const { deviceId } = await measured(console, orderFor(code));
    const again = orderFor(code, { deviceId, deviceName: null });
    expect(await shown()).toEqual({ 'Press desk': ['full'] });
    console.advanceMs(13 * 3600_000);
    await measured(console, again, SLOW);
    expect(await shown()).toEqual({ 'Press desk': ['starved'] });
    await removeDevice(console.context, deviceId);
    expect(await shown()).toEqual({});
    const [removed] = await removedLately(console.context, (await console.context.store.sites.all())[0]!.id);
    await undoRemoval(console.context, removed!.id);
    expect(await shown()).toEqual({ 'Press desk': ['starved'] });
  });

  describe('narrowed', () => {
    beforeEach(async () => {
      await measured(console, orderFor(code, { deviceName: 'Press desk', spotName: 'Workshop' }));
      await measured(console, orderFor(code, { deviceName: 'Bench', spotName: 'Attic' }), SLOW);
      await measured(console, orderFor(code, { deviceName: 'Scan room', reach: 'local', spotName: 'Attic' }));
    });

    it('by verdict keeps devices with such a result', async () => {
      expect(await shown({ verdict: 'starved' })).toEqual({ Bench: ['starved'], 'Scan room': ['starved'] });
      expect(await shown({ verdict: 'full' })).toEqual({ 'Press desk': ['full'] });
    });

    it('by spot and by name keeps their rows, and all devices for a round', async () => {
      expect(Object.keys(await shown({ spot: 'Attic' }))).toEqual(['Bench', 'Scan room']);
      expect(Object.keys(await shown({ text: 'desk' }))).toEqual(['Press desk']);
      expect((await board({ text: 'desk' })).devices).toHaveLength(3);
    });

    it('to a segment says what is known of it and on how many runs that rests', async () => {
      const siteId = (await console.context.store.sites.all())[0]!.id;
      expect((await board({ segment: 'line' })).facts!.sentences).toEqual([
        'No run has crossed it in the last two weeks.',
      ]);
      await refreshDiagnosis(console.context, siteId);
      const { facts, columns } = await board({ segment: 'line' });
      expect(facts!.sentences.join(' ')).toMatch(
        /^The line Tarnfell Fibre 500\/100: proven to carry \d+ down, [\d.]+ up.*crossed by \d device/,
      );
      const proof = await console.context.store.runs.byId(facts!.runId!);
      expect(proof).toMatchObject({ reach: 'internet', status: 'finished' });
      expect(columns.map(({ reach }) => reach)).toEqual(['internet']);
      expect((await board({ segment: 'tunnel' })).facts!.sentences).toEqual([
        'No run has crossed it in the last two weeks.',
      ]);
    });

    it('has one device where there were two that are one, with the newer result in each place', async () => {
      await mergeDevices(console.context, await idOf('Press desk'), await idOf('Bench'));
      expect(await shown()).toEqual({ Bench: ['starved'], 'Scan room': ['starved'] });
    });
  });
});
