import { drawNoise } from '../judge/compare/simulated-groups';
import { seededRandom } from '../stats/seeded-random';
import { overTimeOf, type OccasionInTime } from './over-time';

const HOUR_MS = 3600_000;

/** Three weeks, every other hour; `at`: what is given then, bits per second or ms. */
function weeks(at: (hour: number, index: number) => number, noise = 0.01): OccasionInTime[] {
  const random = seededRandom(6);
  return Array.from({ length: 21 * 12 }, (_, index) => {
    const hour = (2 * index) % 24;
    return {
      ...{ startedAtMs: index * 2 * HOUR_MS, weekday: Math.floor(index / 12) % 7, hour, occasion: `o${index}` },
      value: at(hour, index) * (1 + noise * drawNoise('normal', random)),
    };
  });
}
const isEvening = (hour: number) => hour >= 19 && hour <= 22;

describe('what time shows', () => {
  it('of a line that sags in the evening: which hours, and what is usual in them and in the others', () => {
    const over = overTimeOf(
      weeks((hour) => (isEvening(hour) ? 310e6 : 490e6)),
      'down',
    );
    expect(over.slowHours!.hours).toEqual([20, 22]);
    expect(over.shifts).toEqual([]);
    // The last band of each kind of hours is narrow and about its own level.
    const [evening, noon] = [over.bands.at(-2)!, over.bands.at(-6)!];
    expect(evening.median / 310e6).toBeCloseTo(1, 1);
    expect(evening.high).toBeLessThan(340e6);
    expect(noon.median / 490e6).toBeCloseTo(1, 1);
    expect(noon.low).toBeGreaterThan(450e6);
    expect(over.newest).toBeNull();
  });

  it('of an evening as slow as ever: nothing unusual; of a noon as slow as that: the lowest ever', () => {
    const sags = weeks((hour) => (isEvening(hour) ? 310e6 : 490e6));
    const next = { startedAtMs: 1e12, weekday: 0, occasion: 'next', value: 312e6 };
    expect(overTimeOf([...sags, { ...next, hour: 20 }], 'down').newest).toBeNull();
    expect(overTimeOf([...sags, { ...next, hour: 12 }], 'down').newest).toMatchObject({ is: 'low', asFar: 0 });
  });

  it('of a delay that became less when something was changed: one shift, dated', () => {
    const { shifts } = overTimeOf(
      weeks((_, index) => (index < 120 ? 227 : 14)),
      'addedUp',
    );
    expect(shifts).toHaveLength(1);
    expect(shifts[0]).toMatchObject({ at: 120, fromMs: 119 * 2 * HOUR_MS, untilMs: 120 * 2 * HOUR_MS });
    expect(shifts[0]!.shift).toBeCloseTo(-213, -1);
  });

  it('of nothing: nothing', () => {
    expect(overTimeOf([], 'down')).toEqual({
      ...{ quantity: 'down', bands: [], usual: null, newest: null, shifts: [], weekHours: [], weekBlocks: [] },
      slowHours: null,
    });
  });
});
