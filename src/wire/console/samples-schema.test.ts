import { seededRandom, type RunSamples } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { runSamplesSchema } from './samples-schema';

const direction = (mbps: number) => ({ rateBps: mbps * 1e6, queueMs: 25, swing: 0.01, dips: 0 });
const honest: RunSamples = simulateSamples(
  { idleMs: 15, jitterMs: 0.4, down: direction(480), up: direction(97) },
  seededRandom(3),
);
const takes = (samples: unknown) => runSamplesSchema.safeParse(JSON.parse(JSON.stringify(samples))).success;
/** One value of a list is another one. */
const put = <Value>(list: readonly Value[], place: number, value: Value): Value[] => list.with(place, value);

describe('samples that are handed in', () => {
  it('are taken as an honest run makes them, and mean the same afterwards', () => {
    expect(takes(honest)).toBe(true);
    expect(runSamplesSchema.parse(JSON.parse(JSON.stringify(honest)))).toEqual(honest);
  });

  it('are refused where a clock or a counter goes backwards', () => {
    const { download, probes } = honest;
    const [stream] = download!.bytes;
    expect(takes({ ...honest, download: { ...download, atMs: put(download!.atMs, 3, download!.atMs[2]! - 1) } })).toBe(
      false,
    );
    expect(
      takes({ ...honest, download: { ...download, bytes: put(download!.bytes, 0, put(stream!, 3, stream![2]! - 1)) } }),
    ).toBe(false);
    expect(takes({ ...honest, probes: { ...probes, sentMs: put(probes.sentMs, 3, probes.sentMs[2]! - 1) } })).toBe(
      false,
    );
  });

  it('are refused where lists that belong together do not', () => {
    const { download, probes } = honest;
    expect(takes({ ...honest, probes: { ...probes, rttMs: probes.rttMs.slice(1) } })).toBe(false);
    expect(takes({ ...honest, download: { ...download, atMs: download!.atMs.slice(1) } })).toBe(false);
  });

  it('are refused where a figure cannot be', () => {
    const { download, probes } = honest;
    const [stream] = download!.bytes;
    for (const rtt of [-0.1, '12', true])
      expect(takes({ ...honest, probes: { ...probes, rttMs: put<unknown>(probes.rttMs, 0, rtt) } })).toBe(false);
    for (const count of [-1, 0.5, '9'])
      expect(
        takes({
          ...honest,
          download: { ...download, bytes: put<unknown>(download!.bytes, 0, put<unknown>(stream!, 0, count)) },
        }),
      ).toBe(false);
    expect(takes({ ...honest, phases: [{ phase: 'idle', fromMs: 10, toMs: 9 }] })).toBe(false);
    expect(takes({ ...honest, profile: 'whatever' })).toBe(false);
    expect(takes({ ...honest, formatVersion: 2 })).toBe(false);
    expect(takes({ ...honest, more: 1 })).toBe(false);
  });

  it('are refused where they are more than any run makes', () => {
    const many = Array.from({ length: 80_001 }, (_, place) => place);
    expect(takes({ ...honest, probes: { sentMs: many, rttMs: many } })).toBe(false);
    const streams = Array.from({ length: 17 }, () => honest.download!.bytes[0]);
    expect(takes({ ...honest, download: { ...honest.download, bytes: streams } })).toBe(false);
  });
});
