import { seededRandom, type RandomSource } from '../stats/seeded-random';
import { addedAtHop, delaysUnderLoad, type HopDelays } from './path-load';

const EACH = 30;
/** Usual round trips of a way out, ms. */
const WAY_MS = [0.4, 6, 9, 14, 14.5, 16];

const normal = (random: RandomSource) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** A way of which `slowFrom` and all behind it are later by `addedMs` while the line is full down; up nothing is added. */
function way(random: RandomSource, slowFrom: number | null, addedMs: number): HopDelays[] {
  const series = (ms: number, by: number, lost: number) =>
    Array.from({ length: EACH }, () =>
      random() < lost ? null : ms + by * (0.8 + 0.2 * random()) + Math.abs(normal(random)) * (0.3 + 0.05 * ms),
    );
  return WAY_MS.map((ms, index) => {
    const place = index + 1;
    const by = slowFrom !== null && place >= slowFrom ? addedMs : 0;
    // One router puts answers last, whatever goes on; another answers seldom.
    const own = place === 3 ? 25 : 0;
    const lost = place === 5 ? 0.5 : 0.02;
    return {
      ...{ place, address: `198.51.100.${place}`, idleMs: series(ms + own * random(), 0, lost) },
      ...{ downMs: series(ms + own * random(), by, lost), upMs: series(ms + own * random(), 0, lost) },
    };
  });
}

const loaded = (hops: readonly HopDelays[]) => ({ peer: 'outside peer', downBps: 100e6, upBps: 20e6, hops });

describe('where the delay of a full line comes in', () => {
  it.each([1, 2, 4, 6])('is found at hop %i, in 99 of 100 ways', (slowFrom) => {
    const random = seededRandom(slowFrom);
    let right = 0;
    for (let times = 0; times < 200; times += 1) {
      const [down, up] = delaysUnderLoad(loaded(way(random, slowFrom, 25 + 150 * random())));
      if (down!.place === slowFrom && up!.place === null) right += 1;
    }
    expect(right).toBeGreaterThanOrEqual(198);
  });

  it('is nowhere where nothing is added: in 99 of 100 ways', () => {
    const random = seededRandom(7);
    let wrong = 0;
    for (let times = 0; times < 300; times += 1)
      if (delaysUnderLoad(loaded(way(random, null, 0))).some(({ place }) => place !== null)) wrong += 1;
    expect(wrong).toBeLessThanOrEqual(3);
  });

  it('names the hops on both sides of it, and the machine itself where the first one has it already', () => {
    const random = seededRandom(1);
    expect(delaysUnderLoad(loaded(way(random, 4, 120)))[0]).toMatchObject({
      ...{ way: 'down', place: 4, address: '198.51.100.4' },
      before: { place: 3, address: '198.51.100.3' },
    });
    expect(delaysUnderLoad(loaded(way(random, 1, 120)))[0]).toMatchObject({ place: 1, before: null });
  });

  it('tells nothing of a hop that hardly answers, and nothing at all where none does', () => {
    const silent = Array.from({ length: EACH }, () => null);
    const few = [...Array.from({ length: 5 }, () => 90), ...silent.slice(5)];
    const hop = { place: 1, address: '198.51.100.1', idleMs: few, downMs: few, upMs: silent };
    expect(addedAtHop(hop, 'down')).toBeNull();
    expect(delaysUnderLoad(loaded([hop]))).toEqual([]);
    expect(delaysUnderLoad(loaded([]))).toEqual([]);
  });
});
