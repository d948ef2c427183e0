import { sideSentences } from '@/core';
import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { makeComparison, removeRuns, shareComparison } from '../runs';
import { sharedSidePageOf, sidePageOf } from './side-page';

describe('trays that were kept, side by side', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
    for (const deviceName of ['Press desk', 'Bench'])
      await measured(console, orderFor(code, { deviceName }), GOOD_LINE);
  });
  afterEach(() => console.close());

  const made = async (...queries: string[]) => {
    const trays = queries.map((query) => ({ name: '', query, runIds: null }));
    const comparison = await makeComparison(console.context, 'Ines', { siteId, name: '', trays });
    if (!comparison.ok) throw new Error(comparison.fault.code);
    return comparison.value.id;
  };
  const page = async (id: string) => {
    const found = await sidePageOf(console.context, id);
    if (!found.ok) throw new Error(found.fault.code);
    return found.value;
  };

  it('are named by what differs; an empty one keeps nobody from comparing the others', async () => {
    const id = await made('device=nobody', 'device=press', 'device=bench');
    const { trays, compared, side } = await page(id);
    expect(trays.map(({ runs }) => runs.length)).toEqual([0, 1, 1]);
    expect(compared.map(({ query }) => query)).toEqual(['device=press', 'device=bench']);
    expect(side.differences.map(({ trait }) => trait)).toEqual(['device']);
    expect(sideSentences(side, compared)[0]).toMatch(/cannot be told apart/);
  });

  it('hold what matches now: a run that was removed is in none of them', async () => {
    const id = await made('device=press', 'device=bench');
    const before = await page(id);
    expect(before.compared.map(({ name }) => name)).toEqual(['Press desk', 'Bench']);
    await removeRuns(console.context, { siteId, runIds: [before.trays[0]!.runs[0]!.id] });
    expect((await page(id)).trays.map(({ runs }) => runs.length)).toEqual([0, 1]);
  });

  it('are read by their link and by no other, until it is revoked, and then by a new one', async () => {
    const id = await made('device=press', 'device=bench');
    const opens = async (path: string) => (await sharedSidePageOf(console.context, id, path.split('/').at(-1)!)).ok;
    const link = async (on: boolean) => {
      const shared = await shareComparison(console.context, { id, on });
      return shared.ok ? shared.value : null;
    };
    const first = (await link(true))!;
    expect(await link(true)).toBe(first);
    expect([await opens(first), await opens('/s/side/x/none')]).toEqual([true, false]);
    expect(await link(false)).toBeNull();
    expect(await opens(first)).toBe(false);
    const second = (await link(true))!;
    expect([await opens(second), await opens(first)]).toEqual([true, false]);
    expect(await sharedSidePageOf(console.context, 'none', second)).toMatchObject({
      fault: { code: 'comparison-unknown' },
    });
  });
});
