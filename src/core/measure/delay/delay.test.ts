import { rateBloat } from '../../judge/bloat-rating';
import { addedDelayMs, interarrivalJitterMs, summarizeDelay, workingRoundTripsPerMinute } from './delay-summary';
import { echoedBetween } from './probe-series';
import { queueOnsetMs } from './queue-onset';
import { hasDrained } from './settling';

describe('delay summary', () => {
  it('gives minimum, median, p95, maximum and the mean absolute difference', () => {
    expect(summarizeDelay([10, 12, 11])).toEqual({
      count: 3,
      minMs: 10,
      medianMs: 11,
      p95Ms: 11.9,
      maxMs: 12,
      jitterMs: 1.5,
      variationMs: expect.closeTo(1.9, 10),
      variationPercentile: 95,
    });
  });

  it('takes the 99th percentile for the delay variation (RFC 5481) once there are 200 probes', () => {
    const probes = Array.from({ length: 200 }, (_, index) => 10 + index / 100);
    expect(summarizeDelay(probes)).toMatchObject({ variationPercentile: 99, variationMs: expect.closeTo(1.9701, 6) });
  });

  it('smooths one-way jitter as RFC 3550 does', () => {
    expect(interarrivalJitterMs([5, 7])).toBeCloseTo(0.125, 10);
    expect(interarrivalJitterMs([5, 7, 5])).toBeCloseTo(0.125 + (2 - 0.125) / 16, 10);
    expect(interarrivalJitterMs([5])).toBeNull();
  });

  it('measures nothing from nothing, and no jitter from one probe', () => {
    expect(summarizeDelay([])).toBeNull();
    expect(summarizeDelay([5])!.jitterMs).toBeNull();
  });

  it('takes the median, so that one bad packet does not skew it', () => {
    expect(summarizeDelay([14, 14, 15, 14, 2000])!.medianMs).toBe(14);
  });

  it('adds nothing when a side was not measured', () => {
    const idle = summarizeDelay([14, 14, 14]);
    expect(addedDelayMs(idle, summarizeDelay([226, 226]))).toBe(212);
    expect(addedDelayMs(idle, null)).toBeNull();
    expect(workingRoundTripsPerMinute(null)).toBeNull();
    expect(workingRoundTripsPerMinute(summarizeDelay([200]))).toBe(300);
  });

  it('counts only echoed probes that were sent inside the window', () => {
    const probes = { sentMs: [0, 50, 100, 150], rttMs: [1, null, 3, 4] };
    expect(echoedBetween(probes, 0, 150)).toEqual([1, 3]);
  });
});

describe('bufferbloat rating', () => {
  it.each([
    [-2, 'crisp'],
    [9.9, 'crisp'],
    [10, 'firm'],
    [30, 'soft'],
    [75, 'soggy'],
    [199, 'soggy'],
    [200, 'collapsed'],
  ])('calls %d ms of added delay %s', (addedMs, word) => {
    expect(rateBloat(addedMs)).toBe(word);
  });

  it('has no word for what was not measured', () => {
    expect(rateBloat(null)).toBeNull();
  });
});

describe('settling', () => {
  it('waits until the delay is back near idle', () => {
    expect(hasDrained([200, 90, 40], 14)).toBe(false);
    expect(hasDrained([200, 15, 16, 14], 14)).toBe(true);
    expect(hasDrained([109, 108, 110], 100)).toBe(true);
    expect(hasDrained([14, 14], 14)).toBe(false);
  });
});

describe('the moment when the queue begins to fill', () => {
  const sentMs = Array.from({ length: 120 }, (_, index) => index * 50);
  const withRtt = (rttAt: (ms: number) => number | null) => ({ sentMs, rttMs: sentMs.map(rttAt) });
  const idle = { fromMs: 0, toMs: 2000 };

  it('is the first of three probes in a row that took longer than idle', () => {
    const filling = withRtt((ms) => (ms < 2400 ? 14 : 14 + (ms - 2400) / 10));
    expect(queueOnsetMs(filling, idle, 2000, 6000)).toBe(500);
  });

  it('is not a single late probe, and not anything after the load', () => {
    expect(
      queueOnsetMs(
        withRtt((ms) => (ms === 3000 ? 300 : 14)),
        idle,
        2000,
        6000,
      ),
    ).toBeNull();
    expect(
      queueOnsetMs(
        withRtt((ms) => (ms > 4000 ? 300 : 14)),
        idle,
        2000,
        4000,
      ),
    ).toBeNull();
  });

  it('is unknown when nothing was measured', () => {
    expect(
      queueOnsetMs(
        withRtt(() => null),
        idle,
        2000,
        6000,
      ),
    ).toBeNull();
  });
});
