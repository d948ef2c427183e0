import { furnish, measured, openTestConsole, orderFor, type TestConsole } from '../console/console-for-tests';
import { leaveOutRuns, noteRuns, removeRuns, saveLedgerView, shareRun, tagRuns } from '../runs';
import { runPageOf } from './run-page';
import { sharedRunPageOf } from './shared-run-page';
import { forgetOldRemovals, removedLately, undoRemoval } from '../office/removals';
import { boardOf } from './board';
import { LEDGER_SLICE_ROWS, ledgerFrameOf, ledgerOf, matchingRuns, type LedgerQuery } from './ledger';

const ROWS = 2 * LEDGER_SLICE_ROWS + 7;
const DAY_MS = 24 * 3600_000;

describe('the ledger', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  const slice = async (query: LedgerQuery) => {
    const found = await ledgerOf(console.context, query);
    if (!found.ok) throw new Error(found.fault.code);
    return found.value;
  };
  const fill = async () => {
    const { runId } = await measured(console, orderFor(code));
    const run = (await console.context.store.runs.byId(runId))!;
    await console.context.store.runs.takeIn(
      Array.from({ length: ROWS - 1 }, (_, index) => ({
        // Three of each moment: an order by time alone would lose some between two slices.
        run: { ...run, id: `run-${index}`, startedAtMs: run.startedAtMs - 1000 * (1 + Math.floor(index / 3)) },
        samples: null,
      })),
    );
    return run;
  };

  it('shows each run once on the way to the oldest, and goes on where it was when new ones come in meanwhile', async () => {
    const run = await fill();
    const ids: string[] = [];
    let [after, slices]: [string | undefined, number] = [undefined, 0];
    do {
      const { runs, next, count } = await slice({ after });
      ids.push(...runs.map(({ id }) => id));
      expect(count).toBe(ROWS + slices);
      slices += 1;
      after = next ?? undefined;
      const late = { ...run, id: `late-${slices}`, startedAtMs: run.startedAtMs + 1000 * slices };
      await console.context.store.runs.takeIn([{ run: late, samples: null }]);
    } while (after !== undefined);
    expect(slices).toBe(3);
    expect(new Set(ids).size).toBe(ROWS);
    expect(ids).toHaveLength(ROWS);
    expect((await slice({})).runs[0]!.id).toBe('late-3');
  });

  it('begins at its head where a place is none, and says what of a query means nothing', async () => {
    await fill();
    const head = (await slice({})).runs.map(({ id }) => id);
    for (const after of ['', 'x', 'bm9uZQ', Buffer.from('[1,2]').toString('base64url'), '~~~', '{"a":1}'])
      expect((await slice({ after })).runs.map(({ id }) => id)).toEqual(head);
    const odd = await slice({ query: 'colour=red verdict=full' });
    expect(odd.faults).toMatchObject([{ code: 'field-unknown', typed: 'colour=red' }]);
    expect(odd.count).toBe(ROWS);
    expect(odd.filtered).toBe(true);
  });

  it('reads days in the time zone of the office', async () => {
    const site = (await console.context.store.sites.byId(siteId))!;
    // 20:30 in London is the next morning in Auckland.
    const startedAtMs = Date.UTC(2026, 10, 20, 20, 30);
    const { runId } = await measured(console, orderFor(code));
    const run = (await console.context.store.runs.byId(runId))!;
    await console.context.store.runs.takeIn([{ run: { ...run, id: 'evening', startedAtMs }, samples: null }]);
    const on = async (timeZone: string, day: string) => {
      await console.context.store.sites.saveSite({ ...site, timeZone });
      return (await slice({ query: `on=${day}` })).runs.map(({ id }) => id);
    };
    expect(await on('Europe/London', '20.11.2026')).toEqual(['evening']);
    expect(await on('Europe/London', '21.11.2026')).toEqual([]);
    expect(await on('Pacific/Auckland', '21.11.2026')).toEqual(['evening']);
    expect(await on('Pacific/Auckland', '20.11.2026')).toEqual([]);
  });

  it('takes a tag and a line on many at once, and finds them by it', async () => {
    const one = await measured(console, orderFor(code, { deviceName: 'A' }));
    const two = await measured(console, orderFor(code, { deviceName: 'B' }));
    const chosen = { siteId, runIds: [one.runId, two.runId] };
    expect(await tagRuns(console.context, { ...chosen, tag: 'heater', on: true })).toMatchObject({ ok: true });
    expect(await noteRuns(console.context, { ...chosen, note: 'door open' })).toMatchObject({ ok: true });
    expect(await noteRuns(console.context, { siteId, runIds: [two.runId], note: 'and shut' })).toMatchObject({
      ok: true,
    });
    expect(await matchingRuns(console.context, { siteId, query: 'tag=heater' })).toHaveLength(2);
    expect(await matchingRuns(console.context, { siteId, query: 'note="and shut"' })).toEqual([two.runId]);
    expect((await console.context.store.runs.byId(two.runId))!.notes).toBe('door open\nand shut');
    expect((await ledgerFrameOf(console.context, siteId)).known.tag).toEqual(['heater']);
    expect(await tagRuns(console.context, { ...chosen, siteId: 'none', tag: 'x', on: true })).toMatchObject({
      fault: { code: 'site-missing' },
    });
  });

  it('leaves runs out of all judgement with a reason, and takes them in again as what they were', async () => {
    const { runId, deviceId } = await measured(console, orderFor(code));
    const cells = async () => {
      const board = await boardOf(console.context, siteId);
      if (!board.ok) throw new Error(board.fault.code);
      return board.value.groups.flatMap(({ rows }) =>
        rows.flatMap((row) => row.cells.flatMap(({ cell }) => cell ?? [])),
      );
    };
    expect(await cells()).toHaveLength(1);
    const { evidence } = (await slice({})).runs[0]!;
    const chosen = { siteId, runIds: [runId, 'nobody'] };
    expect(await leaveOutRuns(console.context, { ...chosen, reason: 'the backup ran' })).toMatchObject({ value: 1 });
    expect((await slice({})).runs[0]).toMatchObject({ evidence: 'left-out', leftOut: 'the backup ran' });
    // It speaks of nothing any more, and the next run begins a set of its own.
    expect(
      await console.context.store.runs.ratesSince(
        { siteId, deviceId, linkKind: 'wired', reach: 'internet', practice: false },
        0,
      ),
    ).toEqual([]);
    expect(await leaveOutRuns(console.context, { ...chosen, reason: null })).toMatchObject({ value: 1 });
    expect((await slice({})).runs[0]).toMatchObject({ evidence, leftOut: null });
    expect(await leaveOutRuns(console.context, { siteId, runIds: ['nobody'], reason: 'x' })).toMatchObject({
      fault: { code: 'runs-missing' },
    });
  });

  it('removes runs so that nothing shows them, puts them back as they were, and forgets them after a day', async () => {
    const one = await measured(console, orderFor(code, { deviceName: 'A' }));
    const two = await measured(console, orderFor(code, { deviceName: 'B' }));
    const shared = await shareRun(console.context, one.runId);
    const proof = shared.ok ? shared.value.split('/').at(-1)! : '';
    expect(await sharedRunPageOf(console.context, one.runId, proof)).toMatchObject({ ok: true });
    const before = await console.context.store.runs.byId(one.runId);
    const removed = await removeRuns(console.context, { siteId, runIds: [one.runId, 'nobody'] });
    if (!removed.ok) throw new Error(removed.fault.code);
    expect(removed.value.count).toBe(1);
    expect((await slice({})).runs.map(({ id }) => id)).toEqual([two.runId]);
    expect((await slice({})).count).toBe(1);
    expect((await console.context.store.runs.newestSets(siteId)).map(({ id }) => id)).toEqual([two.runId]);
    // Neither who has its id nor who has a link to it sees it.
    expect(await console.context.store.runs.byId(one.runId)).toBeNull();
    expect(await runPageOf(console.context, one.runId)).toMatchObject({ fault: { code: 'run-unknown' } });
    expect(await sharedRunPageOf(console.context, one.runId, proof)).toMatchObject({ fault: { code: 'run-unknown' } });
    expect(await removedLately(console.context, siteId)).toMatchObject([{ kind: 'runs', name: '1 run', into: null }]);
    expect(await undoRemoval(console.context, removed.value.removalId)).toMatchObject({ ok: true });
    expect(await console.context.store.runs.byId(one.runId)).toEqual(before);
    expect(await undoRemoval(console.context, removed.value.removalId)).toMatchObject({
      fault: { code: 'removal-over' },
    });

    await removeRuns(console.context, { siteId, runIds: [one.runId] });
    console.advanceMs(DAY_MS + 1000);
    await forgetOldRemovals(console.context);
    expect(await console.context.store.runs.byId(one.runId)).toBeNull();
    expect(await console.context.store.runs.byId(two.runId)).not.toBeNull();
    expect(await removeRuns(console.context, { siteId, runIds: [one.runId] })).toMatchObject({
      fault: { code: 'runs-missing' },
    });
  });

  it('keeps a view under its name', async () => {
    await saveLedgerView(console.context, 'Ines', { siteId, name: 'Evenings', query: 'q=tag%3Devening' });
    expect((await ledgerFrameOf(console.context, siteId)).views).toEqual([
      { name: 'Evenings', query: 'q=tag%3Devening', byName: 'Ines' },
    ]);
  });
});
