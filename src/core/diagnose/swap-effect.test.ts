import { normal } from '../stats/normal';
import { seededRandom } from '../stats/seeded-random';
import { findingWords } from '../words/finding-words';
import { inOrder, isGoodNews } from './finding';
import { occasionOf, onCable, SHARED } from './office-for-tests';
import { swapEffect, swapFindings, type DatedSwap } from './swap-effect';

const SEGMENTS = [...onCable('press'), ...onCable('bench'), ...SHARED];
const DEVICES = ['press', 'bench'].map((id) => ({ id, name: `${id} desk` }));
const ROUTER: DatedSwap = { id: 's', what: 'router-replaced', segmentId: 'router', deviceId: null, atMs: 1000 };
const measured = (rates: readonly number[], fromMs: number, device = 'press') =>
  rates.map((down, index) => occasionOf(device, 'internet', { down, up: 20, atMs: fromMs + index }));
const office = (occasions: Parameters<typeof swapFindings>[0]['occasions'], swaps = [ROUTER]) => ({
  ...{ swaps, occasions, segments: SEGMENTS, devices: DEVICES, freshFromMs: 0 },
});
const BEFORE = [38, 39, 37.5, 38.4, 38.9];
const AFTER = [93, 94, 92.5, 93.3, 93.8];

describe('what a swap did', () => {
  it('is told from the runs of one device over one way, before and after it', () => {
    const others = measured([400, 410, 405], 2000, 'bench');
    const effect = swapEffect(ROUTER, [ROUTER], [...measured(BEFORE, 0), ...measured(AFTER, 2000), ...others]);
    expect(effect).toMatchObject({ deviceId: 'press', direction: 'down', runsBefore: 5, runsAfter: 5 });
    expect(effect!.afterBps / effect!.beforeBps).toBeCloseTo(93.3 / 38.4, 5);
  });

  it('is held between the swaps beside it, and is nothing where one side was not measured', () => {
    const later = { ...ROUTER, id: 'later', atMs: 3000 };
    const all = [...measured(BEFORE, 0), ...measured(AFTER, 4000)];
    expect(swapEffect(ROUTER, [ROUTER, later], all)).toBeNull();
    expect(swapEffect(later, [ROUTER, later], all)).toBeNull();
    expect(swapEffect(ROUTER, [ROUTER], measured(AFTER, 4000))).toBeNull();
  });

  it('stands out when it helped, after all that is wrong, and says by how much', () => {
    const [finding] = swapFindings(office([...measured(BEFORE, 0), ...measured(AFTER, 2000)]));
    expect(isGoodNews(finding!)).toBe(true);
    expect(findingWords(finding!).sentence).toBe(
      'It helped: the router replaced. press desk makes 93.3 Mb/s down, before it 38.4 (5 and 5 times measured).',
    );
    const wrong = {
      ...finding!,
      key: 'b',
      strength: 'hint',
      facts: { code: 'packets-lost', resentShare: 0.1, runs: 3 },
    } as const;
    expect(inOrder([finding!, wrong])).toEqual([wrong, finding]);
  });

  it('stands out when it made things worse, as something to be done', () => {
    const [finding] = swapFindings(office([...measured(AFTER, 0), ...measured(BEFORE, 2000)]));
    expect(isGoodNews(finding!)).toBe(false);
    expect(finding!.weight).toBeGreaterThan(0.5);
    expect(findingWords(finding!).sentence).toMatch(/^It got worse: the router replaced/);
  });

  it('is no news when it is too old, too little, or too few were measured', () => {
    const all = [...measured(BEFORE, 0), ...measured(AFTER, 2000)];
    expect(swapFindings({ ...office(all), freshFromMs: 1001 })).toEqual([]);
    const little = measured(
      BEFORE.map((rate) => rate * 1.02),
      2000,
    );
    expect(swapFindings(office([...measured(BEFORE, 0), ...little]))).toEqual([]);
    expect(swapFindings(office([...measured([38], 0), ...measured([93], 2000)]))).toEqual([]);
  });

  it('is no news of a queue that is managed: what that costs in rate was meant', () => {
    const managed = { ...ROUTER, what: 'queue-managed' } as const;
    const all = [
      ...measured(AFTER, 0),
      ...measured(
        AFTER.map((rate) => rate * 0.9),
        2000,
      ),
    ];
    expect(swapFindings(office(all, [managed]))).toEqual([]);
    expect(swapFindings(office(all))).toHaveLength(1);
  });

  it('is told of a swap that did nothing in at most 1 of 100 draws', () => {
    const random = seededRandom(5);
    const DRAWS = 500;
    let told = 0;
    for (let draw = 0; draw < DRAWS; draw += 1) {
      const [n, m, spread] = [2 + Math.floor(random() * 8), 2 + Math.floor(random() * 8), 0.01 + 0.09 * random()];
      const drawn = (count: number) => Array.from({ length: count }, () => 90 * Math.exp(spread * normal(random)));
      told += swapFindings(office([...measured(drawn(n), 0), ...measured(drawn(m), 2000)])).length;
    }
    expect(told / DRAWS).toBeLessThanOrEqual(0.01);
  });
});
