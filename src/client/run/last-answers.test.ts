import { waitForLastAnswers } from './last-answers';

/** A clock that stands where it is put; each look takes what `steps` says, then 20 ms. */
function played(steps: readonly number[], answersAt: (look: number) => number) {
  let [atMs, looks] = [0, 0];
  const real = globalThis.setTimeout;
  jest.spyOn(globalThis, 'setTimeout').mockImplementation((done: () => void) => {
    atMs += steps[looks] ?? 20;
    looks += 1;
    return real(done, 0);
  });
  return { nowMs: () => atMs, heard: () => answersAt(looks), looks: () => looks };
}

const WAIT = { mostMs: 1500, quietMs: 300 };

describe('waiting for the last answers', () => {
  afterEach(() => jest.restoreAllMocks());

  it('does not wait where all have come', async () => {
    const { nowMs, heard, looks } = played([], () => 3);
    await waitForLastAnswers({ ...WAIT, nowMs, heard, missing: () => false });
    expect(looks()).toBe(0);
  });

  it('ends with the last one', async () => {
    const { nowMs, heard, looks } = played([], (look) => look);
    await waitForLastAnswers({ ...WAIT, nowMs, heard, missing: () => heard() < 5 });
    expect(looks()).toBe(5);
  });

  it('gives up after a silence', async () => {
    const { nowMs, heard } = played([], (look) => Math.min(look, 10));
    await waitForLastAnswers({ ...WAIT, nowMs, heard, missing: () => true });
    expect(nowMs()).toBe(10 * 20 + 300);
  });

  it('gives up in the end even where now and then one comes', async () => {
    const { nowMs, heard } = played([], (look) => Math.floor(look / 10));
    await waitForLastAnswers({ ...WAIT, nowMs, heard, missing: () => true });
    expect(nowMs()).toBe(1500);
  });

  it('takes no silence for what was a stall of its own', async () => {
    const { nowMs, heard, looks } = played([5000, 900, 5000], (look) => (look < 4 ? 0 : 7));
    await waitForLastAnswers({ ...WAIT, nowMs, heard, missing: () => heard() < 7 });
    expect(looks()).toBe(4);
  });
});
