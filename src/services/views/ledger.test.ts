import { furnish, measured, openTestConsole, orderFor, type TestConsole } from '../console/console-for-tests';
import { LEDGER_PAGE_ROWS, ledgerOf, type LedgerQuery } from './ledger';

const ROWS = 2 * LEDGER_PAGE_ROWS + 7;

describe('the ledger, page by page', () => {
  let console: TestConsole;
  beforeAll(async () => {
    console = await openTestConsole();
    const { code } = await furnish(console);
    const { runId } = await measured(console, orderFor(code));
    const run = (await console.context.store.runs.byId(runId))!;
    await console.context.store.runs.takeIn(
      Array.from({ length: ROWS - 1 }, (_, index) => ({
        // Three of each moment: an order by time alone would lose some between two pages.
        run: { ...run, id: `run-${index}`, startedAtMs: run.startedAtMs - 1000 * (1 + Math.floor(index / 3)) },
        samples: null,
      })),
    );
  });
  afterAll(() => console.close());

  const page = async (query: LedgerQuery) => {
    const found = await ledgerOf(console.context, query);
    if (!found.ok) throw new Error(found.fault.code);
    return found.value;
  };

  it('shows each run once on the way to the oldest, and the same pages on the way back', async () => {
    const pages = [await page({})];
    while (pages.at(-1)!.older !== null) pages.push(await page({ older: pages.at(-1)!.older! }));
    const ids = pages.map(({ runs }) => runs.map(({ id }) => id));
    expect(new Set(ids.flat()).size).toBe(ROWS);
    expect(ids.flat()).toHaveLength(ROWS);
    expect(ids.map((each) => each.length)).toEqual([50, 50, 7]);
    const starts = pages.flatMap(({ runs }) => runs.map(({ startedAtMs }) => startedAtMs));
    expect(starts).toEqual([...starts].sort((a, b) => b - a));

    const middle = await page({ newer: pages[2]!.newer! });
    expect(middle.runs.map(({ id }) => id)).toEqual(ids[1]);
    const head = await page({ newer: middle.newer! });
    expect(head.runs.map(({ id }) => id)).toEqual(ids[0]);
    expect(head.newer).toBeNull();
  });

  it('goes on where it was when new runs come in meanwhile', async () => {
    const first = await page({});
    const newest = (await console.context.store.runs.byId(first.runs[0]!.id))!;
    const late = { ...newest, id: 'late', startedAtMs: newest.startedAtMs + 1000 };
    await console.context.store.runs.takeIn([{ run: late, samples: null }]);
    const second = await page({ older: first.older! });
    const shown = new Set(first.runs.map(({ id }) => id));
    expect(second.runs.some(({ id }) => shown.has(id))).toBe(false);
    // A page of newer runs that would be all but empty is the head of the list, whole.
    const before = await page({ newer: second.newer! });
    expect(before.runs.map(({ id }) => id)).toEqual(first.runs.map(({ id }) => id));
    const head = await page({ newer: before.newer! });
    expect(head.runs[0]!.id).toBe('late');
    expect(head.runs).toHaveLength(LEDGER_PAGE_ROWS);
  });

  it('begins at its head where a place is none', async () => {
    const head = await page({});
    for (const odd of ['', 'x', '5', '~r', 'NaN~r'])
      expect((await page({ older: odd })).runs.map(({ id }) => id)).toEqual(head.runs.map(({ id }) => id));
  });

  it('is narrowed to a time', async () => {
    const all = await page({});
    const at = all.runs[10]!.startedAtMs;
    const since = await page({ fromMs: at });
    expect(since.runs.every(({ startedAtMs }) => startedAtMs >= at)).toBe(true);
    expect(since.total + (await page({ untilMs: at })).total).toBe(all.total);
    expect(since.filtered).toBe(true);
  });
});
