import { dotLanes, MOST_DOTS } from './chosen-dots';

const run = (id: string, atMs: number, down: number | null, up: number | null = null, added: number | null = null) => ({
  ...{ id, figures: { atMs, down, up, added } },
});

describe('chosen runs as dots', () => {
  it('stand at their time and their height above 0, with the median of all', () => {
    const [down] = dotLanes([run('a', 0, 100), run('b', 50, 200), run('c', 100, 400)]);
    expect(down).toMatchObject({ drawn: 'down', median: 200, medianY: 0.5, least: 100, most: 400 });
    expect(down!.dots).toEqual([
      { id: 'a', x: 0, y: 0.25 },
      { id: 'b', x: 0.5, y: 0.5 },
      { id: 'c', x: 1, y: 1 },
    ]);
  });

  it('have no dot where nothing was measured, and no lane for what one of them has alone', () => {
    const lanes = dotLanes([run('a', 0, 100, null), run('b', 1, 90, 20), run('c', 2, null, null)]);
    expect(lanes.map(({ drawn, dots }) => [drawn, dots.map(({ id }) => id)])).toEqual([['down', ['a', 'b']]]);
  });

  it('lie within the lane when all are alike, at one time, or below 0', () => {
    const lanes = dotLanes([run('a', 5, 0, 10, -2), run('b', 5, 0, 10, 4)]);
    for (const { dots } of lanes)
      for (const { x, y } of dots) {
        expect([x >= 0, x <= 1, y >= 0, y <= 1]).toEqual([true, true, true, true]);
      }
    expect(lanes).toHaveLength(3);
    expect(dotLanes([])).toEqual([]);
  });

  it('are thinned where there are thousands, and the figures are still of all', () => {
    const many = Array.from({ length: 9000 }, (_, at) => run(String(at), at, at === 4321 ? 999 : 100));
    const [down] = dotLanes(many);
    expect(down!.dots.length).toBeLessThanOrEqual(MOST_DOTS);
    expect(down).toMatchObject({ most: 999, median: 100 });
  });
});
