import { timeSentences } from '../words/time-words';
import { loadInHours, type HourLoads } from './hour-loads';
import type { OverTime } from './over-time';

const QUIET = Array.from({ length: 24 }, () => 2);
const evening = (mbps: number | null) => QUIET.map((usual, hour) => (hour === 20 || hour === 21 ? mbps : usual));
const SLOW = { hours: [20, 21], bps: 310e6, elseBps: 480e6, occasions: 12 };
const SHOWN = [
  {
    ...{
      quantity: 'down',
      shifts: [],
      slowHours: SLOW,
      weekBlocks: [],
      newest: null,
      bands: [],
      usual: null,
      last: null,
    },
  } as unknown as OverTime & { readonly last: number | null },
];

describe('what goes over the line in its slow hours', () => {
  const said = (down: readonly (number | null)[] | null) => {
    const hours: HourLoads | null = down === null ? null : { down, up: QUIET };
    const loads = hours === null ? null : { hours, promised: { down: 500e6, up: 100e6 } };
    return timeSentences(SHOWN, [], String, loads)[0];
  };

  it('is told beside them: nobody here makes them', () => {
    expect(said(evening(3))).toBe(
      'Between 20:00 and 22:00 down is 310 Mb/s (12 occasions); else 480. Everybody in this office together moves only ' +
        "3.00 of 500 Mb/s down then, by the router's counters: it is not made here.",
    );
  });

  it('is told beside them: somebody here may make them', () => {
    expect(said(evening(180))).toMatch(
      /moves 180 of 500 Mb\/s down then, by the router's counters: look first who does\.$/,
    );
  });

  it('is not told where nobody counted, in these hours or at all', () => {
    for (const loads of [evening(null), null]) expect(said(loads)).toMatch(/; else 480\.$/);
    expect(loadInHours([], [20], 500e6)).toBeNull();
  });
});
