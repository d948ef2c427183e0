import { rateBloat } from './bloat-rating';
import { addedDelayMs, summarizeDelay, workingRoundTripsPerMinute } from './delay-summary';
import { echoedBetween } from './probe-series';
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
    });
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
