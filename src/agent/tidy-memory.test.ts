import { tidyMemory } from './tidy-memory';

describe('memory that is not needed any more', () => {
  it('is given back when it is asked for, without a flag at the start', () => {
    const refs = Array.from({ length: 200 }, () => new WeakRef({ held: new Array(1000).fill(0) }));
    // What was made in this turn is held until the next one.
    return new Promise<void>((resolve) =>
      setTimeout(() => {
        tidyMemory();
        expect(refs.filter((ref) => ref.deref() !== undefined).length).toBeLessThan(20);
        resolve();
      }),
    );
  });
});
