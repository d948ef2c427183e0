import { SKETCH, sketchDrawing } from './sketch-drawing';

const sketch = { downBps: [null, 50e6, 100e6, null], upBps: [null, null, null, 20e6], delayMs: [10, 10, 40, null] };
const { down, up, delay, downWidth } = sketchDrawing(sketch);
const numbersIn = (path: string) => path.match(/-?[\d.]+/g)!.map(Number);

describe('the strip of a row', () => {
  it('has a bar for each share that was measured and none for the others', () => {
    expect(down.match(/M/g)).toHaveLength(2);
    expect(up.match(/M/g)).toHaveLength(1);
    expect(delay.match(/M/g)).toHaveLength(3);
  });

  it('grows download up from the axis and upload down, in proportion', () => {
    const [, axis, half, , , whole] = numbersIn(down);
    expect(axis).toBe(SKETCH.axis);
    expect(half).toBeLessThan(0);
    expect(whole! / half!).toBeCloseTo(2);
    expect(numbersIn(up)[2]).toBeGreaterThan(0);
  });

  it('raises a dot where the delay was longer, and leaves a gap between bars', () => {
    const [, idle, , , , , , loaded] = numbersIn(delay);
    expect(loaded).toBeLessThan(idle!);
    expect(downWidth).toBeLessThan(SKETCH.width / 4);
  });
});
