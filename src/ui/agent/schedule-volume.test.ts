import { volumeWords } from './schedule-volume';

const VOLUME = { runsAWeek: 185, devices: ['Attic box'], bytesAMonth: 41.3e9, without: 0 };

describe('what a schedule comes to', () => {
  it('is said with its devices and its volume', () => {
    expect(volumeWords(VOLUME)).toBe('185 runs a week by Attic box; about 41.3 GB a month.');
  });
  it('names no figure that is not known', () => {
    expect(volumeWords({ ...VOLUME, bytesAMonth: null })).toContain('not known before the first of them');
    expect(volumeWords({ ...VOLUME, without: 2 })).toContain('of 2 places it is not known yet');
    expect(volumeWords({ ...VOLUME, devices: [] })).toContain('no device yet');
  });
  it('names few of many devices', () => {
    expect(volumeWords({ ...VOLUME, devices: ['a', 'b', 'c', 'd', 'e', 'f'] })).toContain('by a, b, c, d and 2 more');
  });
});
