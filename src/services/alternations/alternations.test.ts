import type { AlternationForm } from '@/wire';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { removePeer } from '../office';
import { moveQueue, refuseTurn } from '../turns';
import { lastTurn, standingDevice, takeTurn, type StandingDevice } from '../turns/standing-for-tests';
import { sidePageOf } from '../views';
import { goOnWithAlternation, moveAlternations, sideIsReady, startAlternation, stopAlternation } from '.';

describe('turn and turn about', () => {
  let console: TestConsole;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  const standing = (name: string) => standingDevice(console, siteId, { name });
  /** The device takes up the turn that it was asked for last. */
  const measure = async (device: StandingDevice, mbps: number, samples = true) => {
    await takeTurn(console, device, { mbps, samples });
    console.advanceMs(60_000);
    await moveAlternations(console.context);
  };
  const form = (change: Partial<AlternationForm>): AlternationForm => ({
    ...{ kind: 'devices', deviceA: '', deviceB: '', nameA: '', nameB: '', peerA: '', peerB: '' },
    ...{ reach: 'internet', profile: 'standard', times: 2 },
    ...change,
  });
  const started = async (change: Partial<AlternationForm>) => {
    const made = await startAlternation(console.context, 'Ines', { siteId, form: form(change) });
    if (!made.ok) throw new Error(made.fault.code);
    return made.value.id;
  };
  /** How it stands, with how many runs each side has. */
  const read = async (id: string) => {
    const { runs, ...stored } = (await console.context.store.alternations.byId(id))!;
    return { ...stored, runs: runs.map(({ length }) => length) };
  };

  it('asks two devices in turn, and holds them side by side at the end', async () => {
    const [desk, bench] = [await standing('Press desk'), await standing('Bench')];
    const id = await started({ deviceA: desk.id, deviceB: bench.id });
    for (const device of [desk, bench, desk, bench]) await measure(device, device === desk ? 480 : 240);
    const done = await read(id);
    expect(done).toMatchObject({ state: 'done', runs: [2, 2] });
    // None too many.
    await moveQueue(console.context);
    expect((await console.context.store.turns.open()).length).toBe(0);
    expect([desk.told, bench.told].map((told) => told.filter(({ kind }) => kind === 'asked').length)).toEqual([2, 2]);
    const page = await sidePageOf(console.context, done.comparisonId!);
    expect(page.ok && page.value.trays.map(({ name, runs }) => [name, runs.length])).toEqual([
      ['Press desk', 2],
      ['Bench', 2],
    ]);
  });

  it('sends one device to two far ends in turn, whichever of them is usual', async () => {
    const desk = await standing('Press desk');
    const [first] = (await console.context.store.sites.peersOf(siteId)).filter(({ reach }) => reach === 'internet');
    await console.context.store.sites.savePeer({ ...first!, id: 'other-end', name: 'Branch', pinned: false });
    const id = await started({ kind: 'peers', deviceA: desk.id, peerA: 'other-end', peerB: first!.id, reach: 'local' });
    for (let run = 0; run < 4; run += 1) await measure(desk, run % 2 === 0 ? 240 : 480);
    const { runs, reach, sides, state } = (await console.context.store.alternations.byId(id))!;
    expect([state, reach, sides.map(({ name }) => name)]).toEqual(['done', 'internet', ['Branch', first!.name]]);
    const wentTo = await Promise.all(runs.flat().map((run) => console.context.store.runs.byId(run)));
    expect(wentTo.map((run) => run?.peerId)).toEqual(['other-end', 'other-end', first!.id, first!.id]);
  });

  it('is held where the far end of a side was removed meanwhile', async () => {
    const desk = await standing('Press desk');
    const [first] = (await console.context.store.sites.peersOf(siteId)).filter(({ reach }) => reach === 'internet');
    await console.context.store.sites.savePeer({ ...first!, id: 'other-end', name: 'Branch', pinned: false });
    const id = await started({ kind: 'peers', deviceA: desk.id, peerA: first!.id, peerB: 'other-end' });
    await removePeer(console.context, 'other-end');
    await measure(desk, 480);
    expect(await read(id)).toMatchObject({ state: 'held', why: 'refused-here', runs: [1, 0] });
  });

  it('compares no far ends of different reaches', async () => {
    const desk = await standing('Press desk');
    const peers = await console.context.store.sites.peersOf(siteId);
    const [near, far] = ['local', 'internet'].map((of) => peers.find(({ reach }) => reach === of)!.id);
    const made = await startAlternation(console.context, 'Ines', {
      siteId,
      form: form({ kind: 'peers', deviceA: desk.id, peerA: near!, peerB: far! }),
    });
    expect(made).toMatchObject({ fault: { code: 'peer-missing' } });
  });

  it('waits for hands before each side, and asks nothing of the device meanwhile', async () => {
    const desk = await standing('Press desk');
    const id = await started({ deviceA: desk.id, kind: 'by-hand', nameA: 'tunnel on', nameB: 'tunnel off' });
    await moveAlternations(console.context);
    expect(desk.told.filter(({ kind }) => kind === 'asked')).toEqual([]);
    await sideIsReady(console.context, id);
    // Said twice by two people: it is ready once.
    expect(await sideIsReady(console.context, id)).toMatchObject({ fault: { code: 'alternation-over' } });
    await measure(desk, 200);
    expect(await read(id)).toMatchObject({ turnId: null, readyFor: 0, runs: [1, 0] });
    await sideIsReady(console.context, id);
    await measure(desk, 480);
    // The same side once more: nothing has to be changed.
    await measure(desk, 480);
    expect(await read(id)).toMatchObject({ turnId: null, runs: [1, 2] });
    await sideIsReady(console.context, id);
    await measure(desk, 200);
    expect(await read(id)).toMatchObject({ state: 'done', runs: [2, 2] });
  });

  it('is held where a turn is refused or brings nothing, says why, and takes that turn once more', async () => {
    const [desk, bench] = [await standing('Press desk'), await standing('Bench')];
    const id = await started({ deviceA: desk.id, deviceB: bench.id, times: 1 });
    await refuseTurn(console.context, desk.id, lastTurn(desk));
    await moveAlternations(console.context);
    expect(await read(id)).toMatchObject({ state: 'held', why: 'refused' });
    await moveAlternations(console.context);
    expect(desk.told.filter(({ kind }) => kind === 'asked')).toHaveLength(1);
    await goOnWithAlternation(console.context, id);
    await measure(desk, 480, false);
    expect(await read(id)).toMatchObject({ state: 'held', why: 'unfinished', runs: [0, 0] });
    await goOnWithAlternation(console.context, id);
    await measure(desk, 480);
    await measure(bench, 240);
    expect(await read(id)).toMatchObject({ state: 'done', runs: [1, 1] });
    expect(await goOnWithAlternation(console.context, id)).toMatchObject({ fault: { code: 'alternation-over' } });
  });

  it('stops for good when it is stopped, and takes its turn out of the queue', async () => {
    const [desk, bench] = [await standing('Press desk'), await standing('Bench')];
    const id = await started({ deviceA: desk.id, deviceB: bench.id });
    await measure(desk, 480);
    await stopAlternation(console.context, id);
    await moveAlternations(console.context);
    expect(await read(id)).toMatchObject({ state: 'stopped', runs: [1, 0] });
    expect(await console.context.store.turns.open()).toEqual([]);
  });

  it('goes on where it was when the console starts again', async () => {
    const desk = await standing('Press desk');
    const id = await started({ deviceA: desk.id, kind: 'by-hand', nameA: 'on', nameB: 'off', times: 1 });
    await sideIsReady(console.context, id);
    await measure(desk, 200);
    await console.reopen();
    await moveAlternations(console.context);
    expect(await read(id)).toMatchObject({ state: 'going', runs: [1, 0] });
    expect((await sideIsReady(console.context, id)).ok).toBe(true);
  });

  it('knows no device of another office', async () => {
    const other = await startAlternation(console.context, 'Ines', {
      siteId,
      form: form({ deviceA: 'none', deviceB: 'other' }),
    });
    expect(other).toMatchObject({ fault: { code: 'device-unknown' } });
  });
});
