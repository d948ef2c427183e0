import { decidingWords, flagWords, reportOf, yardstickWords, type RunReport } from '@/core';
import { OVER_GIGABIT, plainSamples } from '@/core/run/samples-for-tests';
import { readReport } from './report-reader';

const FRESH = reportOf(
  plainSamples({ downBps: 480e6, upBps: 97e6, idleMs: 14, loadedDownMs: 30, loadedUpMs: 226 }),
  OVER_GIGABIT,
);

/** The same report as method 4 wrote it: with sentences where there are facts now. */
function asBefore(): RunReport {
  const yardstick = (direction: 'down' | 'up') => ({
    ...{ status: 'known', rateBps: 500e6, source: 'plan' },
    arithmetic: [`the plan says 500 Mb/s ${direction}`],
  });
  return {
    ...FRESH,
    methodVersion: 4,
    down: { ...FRESH.down, yardstick: yardstick('down') },
    up: { ...FRESH.up, yardstick: yardstick('up') },
    fitness: [
      { code: 'over-wifi', fact: 'the device was on Wi-Fi', nextStep: 'run again over a cable', direction: 'up' },
    ],
    suitability: [{ use: 'voice', word: 'fine', because: 'R 93, MOS 4.4' }],
  } as unknown as RunReport;
}

describe('the reader of stored reports', () => {
  it('keeps the sentences that a record of before was given, word for word', () => {
    const { down, up, fitness, suitability } = readReport(asBefore())!;
    expect([...yardstickWords(down.yardstick), ...yardstickWords(up.yardstick)]).toEqual([
      'the plan says 500 Mb/s down',
      'the plan says 500 Mb/s up',
    ]);
    expect(down.yardstick).toMatchObject({ status: 'known', rateBps: 500e6 });
    expect(fitness).toMatchObject([{ code: 'over-wifi', direction: 'up' }]);
    expect(flagWords(fitness[0]!)).toEqual({
      fact: 'the device was on Wi-Fi',
      nextStep: 'run again over a cable',
    });
    expect(decidingWords(suitability[0]!.because)).toBe('R 93, MOS 4.4');
  });

  it('leaves a report of today alone, and one that is not there', () => {
    expect(readReport(FRESH)).toBe(FRESH);
    expect(readReport(null)).toBeNull();
  });

  it('is not needed twice: what it gave out stands after it was stored again', () => {
    const once = readReport(asBefore())!;
    expect(readReport({ ...once, methodVersion: 5 })).toEqual({ ...once, methodVersion: 5 });
  });
});
