import { seededRandom, type RandomSource } from '../stats/seeded-random';
import type { LaneRole } from './lane';
import { laneUsual, slowTimes, type SlowLane } from './slow-times';
import type { Fault } from './whose-fault';

const MINUTE_MS = 60_000;
const DAY = 24 * 60;
const BEGIN_MS = 1_700_000_000_000 - (1_700_000_000_000 % 3600_000);

/** What a lane usually takes and how much its answers scatter, ms. */
const PLACES: readonly (readonly [string, LaneRole, number, number])[] = [
  ['Gateway', 'gateway', 0.4, 0.3],
  ['Outside peer', 'outside', 14, 3],
  ['Resolver', 'outside', 11, 2],
  ['Shop', 'far', 24, 4],
  ['Store', 'inside', 0.6, 0.4],
];

const normal = (random: RandomSource) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

interface Slowed {
  readonly names: readonly string[];
  readonly from: number;
  readonly minutes: number;
  readonly byMs: number;
}

/**
 * Minutes of a day as an agent sees them: slow drifts, noise of which neighbours know of each other, now and then a minute that is
 * spoilt for everybody, and what was slowed.
 */
function day(random: RandomSource, slowed: readonly Slowed[] = [], spoiltShare = 0.01): SlowLane[] {
  const spoilt = Array.from({ length: DAY }, () => (random() < spoiltShare ? 60 * random() : 0));
  return PLACES.map(([name, role, usualMs, spreadMs]) => {
    let last = 0;
    const medianMs = spoilt.map((ms, minute) => {
      last = 0.7 * last + 0.7 * normal(random);
      const by = slowed.find(
        ({ names, from, minutes }) => names.includes(name) && minute >= from && minute < from + minutes,
      );
      return Math.max(0.1, usualMs + 0.3 * spreadMs * last) + ms + (by?.byMs ?? 0);
    });
    return {
      ...{ laneId: name, name, role, stepMs: MINUTE_MS, usual: { medianMs: usualMs, spreadMs } },
      ...{ atMs: medianMs.map((_, minute) => BEGIN_MS + minute * MINUTE_MS), medianMs },
    };
  });
}

describe('when answers came late', () => {
  it('is told once, with whose fault it was, for each kind of trouble (100 days each)', () => {
    const kinds: readonly (readonly [readonly string[], Fault])[] = [
      [['Outside peer', 'Resolver', 'Shop'], 'line'],
      [['Shop'], 'theirs'],
      [['Gateway', 'Outside peer', 'Resolver', 'Shop', 'Store'], 'ours'],
      [['Store'], 'inside'],
    ];
    const random = seededRandom(5);
    for (const [names, fault] of kinds) {
      let right = 0;
      for (let times = 0; times < 100; times += 1) {
        const from = Math.floor(random() * (DAY - 60));
        const slowed = { names, from, minutes: 10 + Math.floor(30 * random()), byMs: 25 + 30 * random() };
        const found = slowTimes(day(random, [slowed]));
        const [at, until] = [from, from + slowed.minutes].map((minute) => BEGIN_MS + minute * MINUTE_MS);
        const hit = found.filter((each) => each.fromMs < until! && each.untilMs > at!);
        const fits =
          hit.length === 1 &&
          hit[0]!.fault === fault &&
          Math.abs(hit[0]!.fromMs - at!) <= 2 * MINUTE_MS &&
          Math.abs(hit[0]!.untilMs - until!) <= 2 * MINUTE_MS &&
          names.every((name) => hit[0]!.laneIds.includes(name));
        if (fits) right += 1;
      }
      expect([fault, right >= 99]).toEqual([fault, true]);
    }
  });

  it('is not told of days on which nothing was slow: once in a hundred days at most', () => {
    const random = seededRandom(9);
    let told = 0;
    for (let times = 0; times < 300; times += 1) told += slowTimes(day(random)).length;
    expect(told).toBeLessThanOrEqual(3);
  });

  it('is not told of what nobody feels, nor of what lasts a minute or two', () => {
    const random = seededRandom(2);
    const outside = ['Outside peer', 'Resolver', 'Shop'];
    expect(slowTimes(day(random, [{ names: outside, from: 100, minutes: 60, byMs: 6 }], 0))).toEqual([]);
    expect(slowTimes(day(random, [{ names: outside, from: 100, minutes: 2, byMs: 80 }], 0))).toEqual([]);
  });

  it('says how late, of whoever was slowed most, and what is usual there', () => {
    const random = seededRandom(3);
    const [slow] = slowTimes(day(random, [{ names: ['Shop', 'Resolver'], from: 30, minutes: 20, byMs: 40 }], 0));
    expect(slow).toMatchObject({ fault: 'theirs' });
    expect(slow!.tookMs - slow!.usualMs).toBeCloseTo(40, -1);
  });

  it('cannot say whose it was where no gateway answers, nor whether line or target where one alone is watched', () => {
    const random = seededRandom(4);
    const slowed = [{ names: ['Outside peer'], from: 30, minutes: 20, byMs: 40 }];
    const of = (...names: string[]) => day(random, slowed, 0).filter(({ name }) => names.includes(name));
    expect(slowTimes(of('Outside peer', 'Resolver'))).toMatchObject([{ fault: 'unknown' }]);
    expect(slowTimes(of('Outside peer', 'Gateway'))).toMatchObject([{ fault: 'line-or-theirs' }]);
  });

  it('is not ended by a minute that was lost, and goes up to the last one', () => {
    const random = seededRandom(6);
    const lanes = day(random, [{ names: ['Shop'], from: DAY - 30, minutes: 30, byMs: 50 }], 0).map((lane) => ({
      ...lane,
      medianMs: lane.medianMs.map((ms, minute) => (minute === DAY - 15 ? null : ms)),
    }));
    expect(slowTimes(lanes)).toMatchObject([
      { fromMs: BEGIN_MS + (DAY - 30) * MINUTE_MS, untilMs: BEGIN_MS + DAY * MINUTE_MS, fault: 'theirs' },
    ]);
  });

  it('goes by what is usual on that lane, which takes six hours to be known', () => {
    const hours = (many: number) => Array.from({ length: many }, () => ({ medianMs: 20, p95Ms: 60 }));
    expect(laneUsual(hours(5))).toBeNull();
    expect(laneUsual([...hours(5), { medianMs: null, p95Ms: null }])).toBeNull();
    expect(laneUsual([...hours(6), { medianMs: 500, p95Ms: 900 }])).toEqual({ medianMs: 20, spreadMs: 40 });
    const lanes = day(seededRandom(1), [{ names: ['Shop'], from: 30, minutes: 20, byMs: 50 }], 0);
    expect(slowTimes(lanes.map((lane) => ({ ...lane, usual: null })))).toEqual([]);
    // Over air it scatters so much each day.
    const air = lanes.map((lane) => ({ ...lane, usual: { ...lane.usual!, spreadMs: 40 } }));
    expect(slowTimes(air)).toEqual([]);
  });
});
