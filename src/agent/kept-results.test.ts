import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRandom } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { handInRun, renewEndedCodes, sweepSilentRuns } from '@/services';
import {
  furnish,
  GOOD_LINE,
  handedIn,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from '@/services/console/console-for-tests';
import { deliverLeft, type Post } from '@/session';
import { handInRequestSchema } from '@/wire';
import { diskOutbox } from './disk-outbox';

const ORIGIN = 'http://192.0.2.20:4870';
const RUNS = 72;
const KILLS = 100;

describe('what an agent measured while nobody took it', () => {
  let console: TestConsole;
  let folder: string;
  beforeEach(async () => {
    console = await openTestConsole();
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-'));
  });
  afterEach(async () => {
    await console.close();
    rmSync(folder, { recursive: true });
  });

  it('is handed in once each, in order, though both sides are killed a hundred times meanwhile', async () => {
    const random = seededRandom(72);
    await furnish(console);
    const made: string[] = [];
    for (let run = 0; run < RUNS; run += 1) {
      await renewEndedCodes(console.context);
      const [site] = await console.context.store.sites.all();
      const order = orderFor(site!.joinCode, { deviceName: `Box ${run}` });
      const granted = await startRun(console.context, { ...STRANGER, code: site!.joinCode }, order, ORIGIN);
      if (!granted.ok) throw new Error(granted.fault.code);
      const { runId, runKey } = granted.value;
      const handIn = handedIn(simulateSamples(GOOD_LINE, seededRandom(run + 1)), granted.value);
      await diskOutbox(folder, ORIGIN).put({ runId, request: { runKey, handIn } });
      made.push(runId);
      // The next one is twenty minutes later; this one was never heard of again.
      console.advanceMs(20 * 60_000);
      await sweepSilentRuns(console.context);
    }

    // The console has given all of them up by now.
    const taken: string[] = [];
    let kills = 0;
    /** Takes a hand-in; now and then one side dies: before the record is made, or with the answer on its way. */
    const post: Post = async (path, body) => {
      const runId = path.split('/')[4]!;
      const dies = kills < KILLS && random() < 0.7 ? (random() < 0.5 ? 'before' : 'after') : null;
      const killed = async () => {
        kills += 1;
        await console.reopen();
        return new Error('killed');
      };
      if (dies === 'before') throw await killed();
      const { runKey, handIn } = handInRequestSchema.parse(JSON.parse(JSON.stringify(body)));
      const answer = await handInRun(console.context, runId, runKey, handIn);
      if (!answer.ok) throw new Error(answer.fault.code);
      if (!taken.includes(runId)) taken.push(runId);
      if (dies === 'after') throw await killed();
      return Response.json(answer.value);
    };
    // Each start of the agent begins with what lies on the disk.
    const left = () => diskOutbox(folder, ORIGIN).all();
    for (let start = 0; (await left()).length > 0; start += 1) {
      expect(start).toBeLessThan(KILLS + 5);
      await deliverLeft(post, diskOutbox(folder, ORIGIN));
    }
    expect(kills).toBe(KILLS);
    const [site] = await console.context.store.sites.all();
    const ids = await console.context.store.ledger.ids(site!.id, [], 1000, new Map());
    const runs = await Promise.all(ids.map((id) => console.context.store.runs.byId(id)));
    expect(runs.map((run) => run!.status)).toEqual(Array.from({ length: RUNS }, () => 'finished'));
    expect(new Set(runs.map((run) => run!.id))).toEqual(new Set(made));
    // A hundred ends and starts, each with its disk: on a slow one that takes a while.
  }, 180_000);

  it('is handed in by age, whatever the runs are called', async () => {
    const outbox = diskOutbox(folder, ORIGIN);
    const handIn = { outcome: 'unfinished', reason: 'cancelled', samples: null, facts: null } as const;
    for (const runId of ['z-first', 'a-second', 'm-third'])
      await outbox.put({ runId, request: { runKey: 'k', handIn } });
    expect((await outbox.all()).map(({ runId }) => runId)).toEqual(['z-first', 'a-second', 'm-third']);
  });
});
