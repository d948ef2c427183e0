import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NOTHING_SAID, sideBySide, type DiagnosisInput, type SideRun } from '@/core';
import { unpacked } from './packed-members';
import { ThinkingThread } from './thinking-thread';

const EMPTY: DiagnosisInput = {
  ...{ segments: [], occasions: [], devices: [], plan: null, tunnelPlans: new Map() },
  ...{ outsidePeerBps: null, freshFromMs: 0, generations: new Map(), said: NOTHING_SAID, swaps: [] },
};

describe('a thread that thinks', () => {
  let folder: string;
  let thread: ThinkingThread;
  const threadOf = (script: string) => {
    const file = join(folder, 'thread.cjs');
    writeFileSync(file, `const { parentPort } = require('node:worker_threads'); ${script}`);
    thread = new ThinkingThread(file);
    return thread;
  };
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'bent-straw-'))));
  afterEach(async () => {
    await thread.close();
    rmSync(folder, { recursive: true });
  });

  it('answers each question with its own answer, whatever their order', async () => {
    const asked = threadOf(
      `const all = []; parentPort.on('message', (each) => { all.push(each); if (all.length === 2)
         for (const { id, rest } of all.reverse()) parentPort.postMessage({ id, answer: { occasions: rest.freshFromMs } }); })`,
    );
    const both = await Promise.all([1, 2].map((freshFromMs) => asked.diagnose('shop', { ...EMPTY, freshFromMs })));
    expect(both.map(({ occasions }) => occasions)).toEqual([1, 2]);
  });

  it('is given the runs of trays whole, what many of them have in common shared', async () => {
    const traits = { link: 'wired' };
    const runs = [1, 2, 3].map((startedAtMs) => ({ id: `r${startedAtMs}`, startedAtMs, traits }));
    const asked = threadOf(
      `parentPort.on('message', ({ id, trays }) => parentPort.postMessage({ id, answer: { differences: trays } }))`,
    );
    const { differences } = await asked.compare([{ name: 'A', runs: runs as unknown as SideRun[] }]);
    const [sent] = differences as unknown as [{ readonly name: string; readonly runs: string }];
    expect(sent.name).toBe('A');
    const came = unpacked<SideRun>(sent.runs);
    expect(came).toEqual(runs);
    expect(came[2]!.traits).toBe(came[0]!.traits);
    expect(sent.runs.split('wired')).toHaveLength(2);
  });

  it('that dies in the middle loses nothing: it is worked out here, and the next question starts another', async () => {
    const asked = threadOf(`parentPort.on('message', () => process.exit(1))`);
    for (let time = 0; time < 2; time += 1)
      expect(await asked.diagnose('shop', EMPTY)).toEqual({ findings: [], segments: [], occasions: 0 });
    expect((await asked.compare([])).fairness).toBe(sideBySide([]).fairness);
  });
});
