import { drawGroup } from './compare/simulated-groups';
import { seededRandom } from '../stats/seeded-random';
import { summarizeSet } from './run-set';

describe('a set of runs', () => {
  it('has the median as its figure and the range beside it; three runs cannot say which of them is odd', () => {
    expect(summarizeSet([486, 485, 310])).toEqual({
      ...{ count: 3, median: 485, spread: 176, spreadKind: 'range', odd: [] },
    });
  });

  it('of three is held against what is usual for the device, once that is known from five sets', () => {
    expect(summarizeSet([486, 485, 310], 'rate', [4, 6, 5, 7])!.odd).toEqual([]);
    expect(summarizeSet([486, 485, 310], 'rate', [4, 6, 5, 7, 3])!.odd).toEqual([2]);
    expect(summarizeSet([486, 485, 470], 'rate', [4, 6, 5, 7, 3])!.odd).toEqual([]);
  });

  it('of five and more shows a run that lies further off than chance and 5 %, and no hair’s breadth', () => {
    expect(summarizeSet([100, 101, 99, 100, 60])).toMatchObject({
      ...{ median: 100, spread: 1, spreadKind: 'median-absolute-deviation', odd: [4] },
    });
    expect(summarizeSet([100, 100, 100, 100, 104])!.odd).toEqual([]);
    expect(summarizeSet([10, 10, 10, 10, 14], 'delay')!.odd).toEqual([]);
    expect(summarizeSet([10, 10, 10, 10, 16], 'delay')!.odd).toEqual([4]);
  });

  it('calls nothing odd in a pair, and has nothing to say of no runs', () => {
    expect(summarizeSet([100, 50])!.odd).toEqual([]);
    expect(summarizeSet([])).toBeNull();
  });
});

/** Fixed seeds; `npm run prove-statistics` prints the same cells with fresh ones. */
describe('how often a set of plain noise shows an odd run', () => {
  const DRAWS = 2000;
  const oddShare = (size: number, noise: number, seed: number) => {
    const random = seededRandom(seed);
    const draw = () => drawGroup('normal', size, random).map((value) => 100 * (1 + noise * value));
    let odd = 0;
    for (let index = 0; index < DRAWS; index += 1) {
      const usual = Array.from({ length: 6 }, draw).map((set) => Math.max(...set) - Math.min(...set));
      if (summarizeSet(draw(), 'rate', usual)!.odd.length > 0) odd += 1;
    }
    return odd / DRAWS;
  };

  it.each([
    [3, 0.02],
    [3, 0.06],
    [4, 0.06],
    [5, 0.02],
    [7, 0.02],
    [12, 0.02],
    [5, 0.2],
    [6, 0.2],
    [8, 0.2],
    [14, 0.2],
    [40, 0.2],
  ])('of %i runs with %d of noise: in at most 5 %%', (size, noise) => {
    expect(oddShare(size, noise, size * 1000 + noise * 100)).toBeLessThanOrEqual(0.05);
  });
});
