import { airByAccessPoint, airBySpot, type AirRun } from './air-of-runs';

let atMs = 0;
const run = (spotName: string | null, signalDbm: number | null, more: Partial<AirRun> = {}): AirRun => ({
  ...{ atMs: (atMs += 1000), deviceId: 'tablet', deviceName: 'Tablet', spotName, band: '5', accessPoint: 'ceiling' },
  ...{ signalDbm, linkRateBps: null, insideBps: null, ...more },
});

describe('the air by spot', () => {
  it('has the place first that hears worst, with how far its signal scatters', () => {
    const spots = airBySpot([
      run('Office', -48),
      run('Loft', -76, { insideBps: 40e6 }),
      run('Loft', -80, { insideBps: 50e6 }),
      run('Loft', -78, { insideBps: 45e6, linkRateBps: 86e6 }),
      run('Office', -52),
    ]);
    expect(spots).toMatchObject([
      {
        ...{ spotName: 'Loft', runs: 3, signal: { told: 3, least: -80, median: -78, most: -76 } },
        ...{ insideBps: 45e6, linkRateBps: 86e6 },
      },
      { spotName: 'Office', runs: 2, signal: { median: -50 }, insideBps: null },
    ]);
    expect(spots[0]!.newestMs).toBe(spots[0]!.course.at(-1)!.atMs);
    expect(spots[0]!.course.map(({ signalDbm }) => signalDbm)).toEqual([-76, -80, -78]);
  });

  it('tells bands apart, and goes by what came through where no radio tells a signal', () => {
    const spots = airBySpot([
      run('Office', null, { insideBps: 400e6 }),
      run('Glue room', null, { band: '2.4', insideBps: 30e6 }),
      run('Glue room', null, { insideBps: 200e6 }),
      run(null, null),
      run('Loft', -60),
    ]);
    expect(spots.map(({ spotName, band }) => [spotName, band])).toEqual([
      ...[['Loft', '5'] as const, ['Glue room', '2.4'] as const, ['Glue room', '5'] as const, ['Office', '5'] as const],
      [null, '5'],
    ]);
    expect(spots[1]!.signal).toBeNull();
  });

  it('keeps the newest of a long course', () => {
    const [spot] = airBySpot(Array.from({ length: 200 }, (_, place) => run('Office', -50 - (place % 3))));
    expect(spot!.course).toHaveLength(60);
    expect(spot!.runs).toBe(200);
    expect(spot!.course.at(-1)!.atMs).toBe(spot!.newestMs);
    expect(airBySpot([])).toEqual([]);
  });
});

describe('the air by access point', () => {
  it('says who hears it, the worst first, and calls a device by its newest name', () => {
    // In whichever order: the store tells the newest first.
    const [ceiling, unnamed] = airByAccessPoint(
      [
        run('Office', -50, { deviceId: 'laptop', deviceName: 'Old name' }),
        run('Loft', -79),
        run('Office', -52, { deviceId: 'laptop', deviceName: 'Laptop' }),
        run('Office', -55, { accessPoint: null, deviceId: 'phone', deviceName: 'Phone' }),
      ].reverse(),
    );
    expect(ceiling).toMatchObject({
      ...{ accessPoint: 'ceiling', band: '5' },
      devices: [{ deviceName: 'Tablet' }, { deviceName: 'Laptop', signal: { least: -52, most: -50 } }],
    });
    expect(unnamed).toMatchObject({ accessPoint: null, devices: [{ deviceName: 'Phone' }] });
  });

  it('is one of each band, though it has one name', () => {
    const points = airByAccessPoint([run('Office', -50), run('Office', -60, { band: '2.4' })]);
    expect(points.map(({ band }) => band)).toEqual(['2.4', '5']);
  });
});
