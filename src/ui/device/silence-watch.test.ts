import { watchSilence } from './silence-watch';

describe('the watch over a worker that measures', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('tells once when nothing was said for 25 s', () => {
    const silent = jest.fn();
    watchSilence(silent);
    jest.advanceTimersByTime(24_000);
    expect(silent).not.toHaveBeenCalled();
    jest.advanceTimersByTime(60_000);
    expect(silent).toHaveBeenCalledTimes(1);
  });

  it('begins anew with each word', () => {
    const silent = jest.fn();
    const watch = watchSilence(silent);
    for (let words = 0; words < 10; words += 1) {
      jest.advanceTimersByTime(20_000);
      watch.heard();
    }
    expect(silent).not.toHaveBeenCalled();
  });

  it('does not take a frozen page for a silent worker', () => {
    const silent = jest.fn();
    watchSilence(silent);
    jest.advanceTimersByTime(5000);
    jest.setSystemTime(Date.now() + 3_600_000);
    jest.advanceTimersByTime(5000);
    expect(silent).not.toHaveBeenCalled();
  });

  it('says nothing after it was stopped', () => {
    const silent = jest.fn();
    const watch = watchSilence(silent);
    watch.stop();
    jest.advanceTimersByTime(600_000);
    expect(silent).not.toHaveBeenCalled();
  });
});
