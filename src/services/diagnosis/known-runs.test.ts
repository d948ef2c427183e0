import { seededRandom } from '@/core';
import type { EvidenceRun } from '@/store';
import { KnownRuns } from './known-runs';

/** A store of runs as far as evidence is read from it, and how often all of it was. */
class RunsForTest {
  readonly runs = new Map<string, EvidenceRun & { changed: number; counts: boolean }>();
  version = 0;
  wholeReadings = 0;

  put(run: Partial<EvidenceRun> & Pick<EvidenceRun, 'id' | 'setId' | 'startedAtMs'>, counts = true): void {
    this.runs.set(run.id, { ...(run as EvidenceRun), changed: (this.version += 1), counts });
  }

  since = (_siteId: string, sinceMs: number, afterVersion: number | null = null) => {
    if (afterVersion === null) this.wholeReadings += 1;
    const all = [...this.runs.values()]
      .filter(({ counts, startedAtMs }) => counts && startedAtMs >= sinceMs)
      .sort((a, b) => a.startedAtMs - b.startedAtMs);
    const runs = all.filter(({ changed }) => afterVersion === null || changed > afterVersion);
    return Promise.resolve({ runs, count: all.length, version: this.version });
  };
}

const run = (startedAtMs: number, more: Partial<EvidenceRun> = {}) => ({
  ...{ id: `run ${startedAtMs}`, setId: `set ${Math.floor(startedAtMs / 3)}`, startedAtMs },
  ...more,
});

describe('the runs that a diagnosis is made of', () => {
  it('are the same as if all were read, whatever came, changed, moved or went in between', async () => {
    const random = seededRandom(8);
    const store = new RunsForTest();
    const known = new KnownRuns(store, 's');
    let nowMs = 100;
    for (let step = 0; step < 400; step += 1) {
      const any = [...store.runs.values()][Math.floor(random() * store.runs.size)];
      const what = random();
      if (any === undefined || what < 0.6) store.put(run((nowMs += 1)));
      else if (what < 0.7) store.put({ ...any, downBps: random() });
      else if (what < 0.78) store.put({ ...any, setId: `set ${Math.floor(random() * 60)}` });
      else if (what < 0.86) store.put(any, !any.counts);
      else if (what < 0.93) store.runs.delete(any.id);
      // Handed in late: it began before others that are known.
      else store.put(run(nowMs - 20 * random()));
      if (random() < 0.4) continue;
      const fresh = await new KnownRuns(store, 's').since(nowMs - 60);
      expect((await known.since(nowMs - 60)).sets).toEqual(fresh.sets);
    }
  });

  it('are read once: what is new is all that is read afterwards, also while old ones fall out of the time', async () => {
    const store = new RunsForTest();
    const known = new KnownRuns(store, 's');
    for (let nowMs = 1; nowMs <= 100; nowMs += 1) {
      store.put(run(nowMs));
      const { sets } = await known.since(nowMs - 30);
      expect(sets.flat()).toHaveLength(Math.min(nowMs, 31));
    }
    expect(store.wholeReadings).toBe(1);
  });

  it('keep the list of a set that did not change, and are another generation once something was removed or came late', async () => {
    const store = new RunsForTest();
    const known = new KnownRuns(store, 's');
    for (const startedAtMs of [3, 4, 6, 8]) store.put(run(startedAtMs));
    const first = await known.since(0);
    store.put(run(9));
    const second = await known.since(0);
    expect(second.generation).toBe(first.generation);
    expect(second.sets[0]).toBe(first.sets[0]);
    store.put(run(7));
    const third = await known.since(0);
    expect(third.generation).not.toBe(second.generation);
    store.runs.delete('run 4');
    expect((await known.since(0)).generation).not.toBe(third.generation);
  });
});
