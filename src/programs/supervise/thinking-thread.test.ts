import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NOTHING_SAID, sideBySide, type DiagnosisInput } from '@/core';
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

  it('that dies in the middle loses nothing: it is worked out here, and the next question starts another', async () => {
    const asked = threadOf(`parentPort.on('message', () => process.exit(1))`);
    for (let time = 0; time < 2; time += 1)
      expect(await asked.diagnose('shop', EMPTY)).toEqual({ findings: [], segments: [], occasions: 0 });
    expect((await asked.compare([])).fairness).toBe(sideBySide([]).fairness);
  });
});
