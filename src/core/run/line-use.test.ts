import { seededRandom } from '../stats/seeded-random';
import { lineUseOf, ownBytes, type LoadStep } from './line-use';

const EVERY_MS = 10_000;
const MEGA = 1e6;

/** What a port moved, read every ten seconds: others at a steady rate, and a run's frames while it went on. */
function counted(
  othersMbps: number,
  run: { readonly fromMs: number; readonly untilMs: number; readonly frameBytes: number },
  firstMs = -4000,
) {
  const ownMbps = (8 * run.frameBytes) / (1000 * (run.untilMs - run.fromMs));
  return Array.from({ length: 9 }, (_, place): LoadStep => {
    const [from, until] = [firstMs + EVERY_MS * place, firstMs + EVERY_MS * (place + 1)];
    const overlap = Math.max(0, Math.min(until, run.untilMs) - Math.max(from, run.fromMs));
    return { atMs: from, mbps: othersMbps + (ownMbps * overlap) / EVERY_MS };
  });
}

/** Bytes on the wire of so much payload: full frames of 1514 bytes that carry 1448. */
const frames = (payload: number) => Math.ceil(payload / 1448) * 1514;

describe('what others moved over the line around a run', () => {
  it.each([10, 50, 180, 500])('is told within 3 %% of %d Mb/s, wherever the readings fall', (others) => {
    const random = seededRandom(others);
    for (let time = 0; time < 20; time += 1) {
      const [fromMs, untilMs] = [8000 + EVERY_MS * random(), 32_000 + EVERY_MS * random()];
      const downBytes = 300 * MEGA * (0.2 + random());
      // Two segments are acknowledged with one frame; nothing else goes up.
      const acks = (downBytes / (2 * 1448)) * 66;
      const down = counted(others, { fromMs, untilMs, frameBytes: frames(downBytes) });
      const up = counted(others / 5, { fromMs, untilMs, frameBytes: acks });
      const use = lineUseOf({ down, up }, { fromMs, untilMs, downBytes, upBytes: 0 }, EVERY_MS)!;
      expect(Math.abs(use.downBps! / (others * MEGA) - 1)).toBeLessThan(0.03);
      expect(Math.abs(use.upBps! / ((others / 5) * MEGA) - 1)).toBeLessThan(0.03);
      expect(use.fromMs).toBeLessThanOrEqual(fromMs);
      expect(use.untilMs).toBeGreaterThanOrEqual(untilMs);
    }
  });

  it('is nothing when nobody else was there, never less', () => {
    const run = { fromMs: 10_000, untilMs: 30_000, frameBytes: frames(200 * MEGA) };
    const use = lineUseOf(
      { down: counted(0, run), up: counted(0, { ...run, frameBytes: 0 }) },
      { ...run, downBytes: 200 * MEGA, upBytes: 0 },
      EVERY_MS,
    )!;
    expect(use.downBps! / MEGA).toBeLessThan(0.5);
    // It acknowledged less than it might have: that is no traffic of others that is less than none.
    expect(use.upBps).toBe(0);
  });

  it('is not known before the readings hold all of the run, nor over a gap in them', () => {
    const run = { fromMs: 10_000, untilMs: 30_000, frameBytes: 1e6 };
    const own = { ...run, downBytes: 1e6, upBytes: 0 };
    const down = counted(20, run);
    const without = (gone: (step: LoadStep) => boolean) => ({ down: down.filter((step) => !gone(step)), up: [] });
    expect(
      lineUseOf(
        without(({ atMs }) => atMs < 10_000),
        own,
        EVERY_MS,
      ),
    ).toBeNull();
    expect(
      lineUseOf(
        without(({ atMs }) => atMs >= 30_000),
        own,
        EVERY_MS,
      ),
    ).toBeNull();
    expect(
      lineUseOf(
        without(({ atMs }) => atMs > 0 && atMs < 50_000),
        own,
        EVERY_MS,
      ),
    ).toBeNull();
    expect(lineUseOf({ down: [], up: [] }, own, EVERY_MS)).toBeNull();
    // One way alone is told by itself; the other one is not known, and not nothing.
    expect(lineUseOf({ down, up: [] }, own, EVERY_MS)).toMatchObject({ upBps: null });
  });

  it('goes by what the peer signed, else by what was counted', () => {
    const counter = (bytes: number) => ({ atMs: [0, 1000], bytes: [[0, bytes]] });
    const samples = { download: counter(5), upload: counter(7), bothDown: counter(11), bothUp: counter(13) } as never;
    expect(ownBytes(samples, null)).toEqual({ downBytes: 16, upBytes: 20 });
    expect(ownBytes(samples, { down: { bytes: 1 }, up: { bytes: 2 } } as never)).toEqual({ downBytes: 1, upBytes: 2 });
  });
});
