import type { Lane, LaneKind, StationReading } from '@/core';
import { openRadioProbe } from './radio-probe';

const BSSID = '02:00:5e:00:53:a0';
const at = (more: Partial<StationReading> = {}): StationReading => ({
  ...{ bssid: BSSID, signalDbm: -58, rateMbps: 866.7, sent: 1000, sentAgain: 100 },
  ...more,
});
const lane = (kind: LaneKind): Lane => ({ id: kind, name: kind, kind, target: 'wlan0', role: 'inside', everyMs: 5000 });

describe('how a radio hears, over time', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('is told for all its lanes by one question, every few seconds', async () => {
    const readings = [at(), at({ signalDbm: -71, sent: 1300, sentAgain: 200 }), null, at({ sent: 10, sentAgain: 1 })];
    const heard: Record<string, (number | null)[]> = { signal: [], 'link-rate': [], retries: [] };
    let asked = 0;
    const read = () => Promise.resolve(readings[asked++] ?? null);
    const probes = (['signal', 'link-rate', 'retries'] as const).map((kind) =>
      openRadioProbe(
        lane(kind),
        ({ ms }) => heard[kind]!.push(ms),
        () => 0,
        read,
      ),
    );
    await jest.advanceTimersByTimeAsync(15_500);
    probes.forEach((probe) => probe.close());
    await jest.advanceTimersByTimeAsync(20_000);
    expect(asked).toBe(4);
    // Without an access point the signal is silent; of the others nothing is known.
    expect(heard['signal']).toEqual([58, 71, null, 58]);
    expect(heard['link-rate']).toEqual([866.7, 866.7, 866.7]);
    expect(heard['retries']).toEqual([25]);
  });

  it('says nothing of what is sent again where the counters began anew, or stand still', async () => {
    const readings = [
      at(),
      at({ sent: 5, sentAgain: 0 }),
      at({ sent: 5, sentAgain: 0 }),
      at({ bssid: '02:00:5e:00:53:a1', sent: 900 }),
    ];
    const heard: (number | null)[] = [];
    const probe = openRadioProbe(
      lane('retries'),
      ({ ms }) => heard.push(ms),
      () => 0,
      () => Promise.resolve(readings.shift() ?? null),
    );
    await jest.advanceTimersByTimeAsync(15_500);
    probe.close();
    expect(heard).toEqual([]);
  });

  it('goes on after a reading that failed', async () => {
    let fails = true;
    const heard: (number | null)[] = [];
    const read = () => (fails ? Promise.reject(new Error('no iw')) : Promise.resolve(at()));
    const probe = openRadioProbe(
      lane('signal'),
      ({ ms }) => heard.push(ms),
      () => 0,
      read,
    );
    await jest.advanceTimersByTimeAsync(100);
    fails = false;
    await jest.advanceTimersByTimeAsync(5000);
    probe.close();
    expect(heard).toEqual([null, 58]);
  });
});
