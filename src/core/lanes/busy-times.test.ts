import { busyWords } from '../words/lane-words';
import { busyTimes, type LoadSteps } from './busy-times';

const AT = Date.UTC(2026, 10, 26, 20, 0, 0);
const MINUTE_MS = 60_000;
const PROMISED = { down: 500, up: 100 };

/** A lane by minutes, with what went over it in some of them. */
const lane = (name: string, at: (minute: number) => number | null, minutes = 120): LoadSteps => ({
  ...{ laneId: name, name, stepMs: MINUTE_MS },
  atMs: Array.from({ length: minutes }, (_, minute) => AT + minute * MINUTE_MS),
  mbps: Array.from({ length: minutes }, (_, minute) => at(minute)),
});
const inBackup = (minute: number) => minute >= 10 && minute < 52;

describe('when the line was busy', () => {
  const up = lane('Line, up', (minute) => (inBackup(minute) ? 84 : 0.3));

  it('is told with how busy, for how long, and which port carried it', () => {
    const archive = lane('Archive box', (minute) => (inBackup(minute) ? 83 : 0.1));
    const desk = lane('Press desk', () => 2);
    const [only, ...more] = busyTimes({ down: null, up }, PROMISED, [desk, archive]);
    expect(more).toEqual([]);
    expect(only).toMatchObject({ way: 'up', fromMs: AT + 10 * MINUTE_MS, untilMs: AT + 52 * MINUTE_MS, ofMbps: 100 });
    expect(only!.port).toEqual({ name: 'Archive box', mbps: 83 });
    expect(busyWords(only!)).toBe('84.0 of 100 Mb/s up were in use, nearly all of it over Archive box');
  });

  it('blames no port that did not carry half of it, nor one that nobody read then', () => {
    const desk = lane('Press desk', () => 30);
    const unread = lane('Archive box', (minute) => (inBackup(minute) ? null : 90));
    const [only] = busyTimes({ down: null, up }, PROMISED, [desk, unread]);
    expect(only!.port).toBeNull();
    expect(busyWords(only!)).toBe('84.0 of 100 Mb/s up were in use; no port that is watched carried half of it');
  });

  it('is one time over a pause of two minutes, and two over a longer one', () => {
    const paused = (pause: number) =>
      lane('up', (minute) => (inBackup(minute) && !(minute >= 20 && minute < 20 + pause) ? 84 : 0));
    expect(busyTimes({ down: null, up: paused(2) }, PROMISED, [])).toHaveLength(1);
    expect(busyTimes({ down: null, up: paused(3) }, PROMISED, [])).toHaveLength(2);
  });

  it('is never for less than half of the plan, nor for less than a minute, nor where nobody counted', () => {
    expect(busyTimes({ down: lane('down', () => 240), up: null }, PROMISED, [])).toEqual([]);
    const single = { ...lane('up', (place) => (place === 3 ? 90 : 0)), stepMs: 15_000 };
    expect(busyTimes({ down: null, up: single }, PROMISED, [])).toEqual([]);
    expect(busyTimes({ down: null, up: lane('up', () => null) }, PROMISED, [])).toEqual([]);
  });
});
