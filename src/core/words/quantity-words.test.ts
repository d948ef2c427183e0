import {
  addedDelayWords,
  ageWords,
  agoWords,
  byteRateWords,
  delayWords,
  durationWords,
  nominalRateFigure,
  rateFigure,
  rateWords,
  shareWords,
  sizeWords,
} from './quantity-words';

describe('quantities in words', () => {
  it.each([
    [9_410_000, '9.41 Mb/s'],
    [93_800_000, '93.8 Mb/s'],
    [486_300_000, '486 Mb/s'],
    [99_960_000, '100 Mb/s'],
    [2_354_000_000, '2354 Mb/s'],
  ])('writes a rate of %d b/s with about three figures and its unit', (rateBps, words) => {
    expect(rateWords(rateBps)).toBe(words);
  });

  it('says that an unknown figure is not measured, never 0', () => {
    expect(rateWords(null)).toBe('not measured');
    expect(delayWords(null)).toBe('not measured');
    expect(addedDelayWords(null)).toBe('not measured');
    expect(shareWords(null)).toBe('not measured');
    expect(sizeWords(null)).toBe('not measured');
    expect(rateFigure(null)).not.toMatch(/\d/);
  });

  it('turns bits into bytes by eight', () => {
    expect(byteRateWords(800_000_000)).toBe('100 MB/s');
  });

  it('keeps a contracted rate as the contract writes it', () => {
    expect(nominalRateFigure(500_000_000)).toBe('500');
    expect(nominalRateFigure(2_500_000)).toBe('2.5');
  });

  it('writes the sign of an added delay and no minus before zero', () => {
    expect(addedDelayWords(212.4)).toBe('+212 ms');
    expect(addedDelayWords(-1.2)).toBe('-1.2 ms');
    expect(addedDelayWords(-0.01)).toBe('0.0 ms');
  });

  it.each([
    [20_000, 'now'],
    [95_000, '1 min'],
    [3_700_000, '1 h'],
    [90_000_000, '1 d'],
  ])('writes an age of %d ms as %s', (ageMs, words) => {
    expect(ageWords(ageMs)).toBe(words);
  });
});

describe('a length of time', () => {
  it.each([
    [0.2, '1 s'],
    [47, '47 s'],
    [720, '12 min'],
    [7200, '2 h'],
    [12_000, '3 h 20 min'],
    [187_200, '2 d 4 h'],
    [172_800, '2 d'],
  ])('of %d seconds is %s', (seconds, words) => {
    expect(durationWords(seconds)).toBe(words);
  });
});

it('how long ago something was ends a sentence', () => {
  expect(agoWords(1000)).toBe('just now');
  expect(agoWords(24 * 60_000)).toBe('24 min ago');
});
