import { METHOD_VERSION, seededRandom } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import {
  finished,
  furnish,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { handInRun } from './hand-in-run';
import { recompute, type RecomputedRun } from './recompute';

const LINE = {
  idleMs: 15,
  jitterMs: 0.4,
  down: { rateBps: 486e6, queueMs: 25, swing: 0.004, dips: 0 },
  up: { rateBps: 97e6, queueMs: 212, swing: 0.004, dips: 0 },
};

describe('recomputing', () => {
  let console: TestConsole;
  let runId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    const { code } = await furnish(console);
    const started = await startRun(console.context, STRANGER, orderFor(code), 'http://192.0.2.20:4870');
    if (!started.ok) throw new Error(started.fault.code);
    ({ runId } = started.value);
    await handInRun(console.context, runId, started.value.runKey, finished(simulateSamples(LINE, seededRandom(5))));
  });
  afterEach(() => console.close());

  const all = async (options = { all: false, dry: false }) => {
    const runs: RecomputedRun[] = [];
    for await (const run of recompute(console.context, options)) runs.push(run);
    return runs;
  };
  const stored = async () => (await console.context.store.runs.byId(runId))!;

  it('leaves runs of the current method alone, and finds them the same when asked to look', async () => {
    expect(await all()).toEqual([]);
    expect(await all({ all: true, dry: false })).toMatchObject([{ status: 'same', changes: [] }]);
  });

  it('brings a run of an older method to this one from its samples, and says what changed', async () => {
    const before = await stored();
    await console.context.store.runs.replaceFigures(runId, { methodVersion: 1, downBps: 1, verdict: 'starved' });
    expect(await all({ all: false, dry: true })).toMatchObject([{ status: 'changed' }]);
    expect((await stored()).downBps).toBe(1);
    const [done] = await all();
    expect(done!.changes).toEqual([
      { what: 'verdict', before: 'starved', after: before.verdict },
      { what: 'downBps', before: 1, after: before.downBps },
    ]);
    expect(await stored()).toMatchObject({ downBps: before.downBps, methodVersion: METHOD_VERSION });
    expect(await all()).toEqual([]);
  });
});
