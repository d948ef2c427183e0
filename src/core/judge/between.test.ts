import type { Link } from '../domain/link';
import { planThroughTunnel, type Plan } from '../domain/plan';
import { strawPathOf } from '../picture/straw-path';
import type { RunConditions } from '../run/run-conditions';
import { OVER_GIGABIT, plainSamples } from '../run/samples-for-tests';
import { sentenceOf } from '../words/sentence';
import { yardstickWords } from '../words/yardstick-words';
import { reportOf } from './run-report';

const cable = (mbps: number): Link => ({ medium: 'wired', negotiatedBps: mbps * 1e6, mtuBytes: 1500 });
const plan = (downMbps: number, upMbps: number): Plan => ({
  ...{ name: 'Line', downBps: downMbps * 1e6, upBps: upMbps * 1e6, leastDownBps: null, leastUpBps: null },
  ...{ basis: 'payload', fullFrom: 0.9 },
});
const LINE = { idleMs: 1, loadedDownMs: 2, loadedUpMs: 2 };
const conditions = (change: Partial<RunConditions>): RunConditions => ({
  ...OVER_GIGABIT,
  ...{ reach: 'between', farEnd: 'agent', plan: null, link: cable(1000), farLink: cable(100) },
  ...change,
});

describe('a run between two machines', () => {
  const at94 = plainSamples({ ...LINE, downBps: 94e6, upBps: 94e6 });

  it('is held against the lower of both ends, whichever that is', () => {
    for (const ends of [
      { link: cable(1000), farLink: cable(100) },
      { link: cable(100), farLink: cable(1000) },
    ]) {
      const report = reportOf(at94, conditions(ends));
      // 100 Mb/s of Ethernet carry 94.1 of TCP payload.
      expect(report.down.yardstick).toMatchObject({ status: 'known', source: 'link' });
      expect((report.down.yardstick as { rateBps: number }).rateBps / 94.1e6).toBeCloseTo(1, 2);
      expect(yardstickWords(report.down.yardstick).at(-1)).toBe('the lower of both ends is the yardstick');
      expect(report.verdict).toBe('full');
      expect(report.planAnswer).toBeNull();
      expect(sentenceOf(report, conditions(ends)).held).toBe(
        'The slower end’s link can show 94.1: as it should be both ways.',
      );
    }
  });

  it('has no verdict where one of the two links is not known', () => {
    for (const ends of [
      { farLink: null },
      { farLink: { medium: 'unknown' } as Link },
      { link: { medium: 'unknown' } as Link },
    ]) {
      const report = reportOf(at94, conditions(ends));
      expect([report.verdict, report.down.yardstick.status]).toEqual(['no verdict', 'unknown']);
      expect(yardstickWords(report.down.yardstick).at(-1)).toBe('the links of both ends would have to be known');
    }
  });

  it('is held against what both lines leave where the other one stands in another office, and proves nothing of a plan', () => {
    const both = planThroughTunnel(plan(500, 100), plan(50, 10));
    const report = reportOf(
      plainSamples({ ...LINE, downBps: 9.8e6, upBps: 49e6 }),
      conditions({ plan: both, farLink: cable(1000) }),
    );
    expect([report.verdict, report.planAnswer]).toEqual(['full', null]);
    expect(sentenceOf(report, conditions({ plan: both })).held).toContain(
      'The slower end of both lines gives 10 down and 50 up',
    );
  });

  it('is drawn over both links inside the office, and over both lines outside', () => {
    const input = {
      ...({
        deviceName: 'Attic box',
        peerName: 'Shop box',
        reach: 'between',
        link: cable(1000),
        plan: null,
        ipVersion: 4,
      } as const),
      ...{ heldByLink: false, linkDoubtful: false, farLink: cable(100) },
    } as const;
    expect(strawPathOf({ ...input, lineName: null }).map(({ kind, label }) => `${kind}: ${label}`)).toEqual([
      ...['device: Attic box', 'link: wired', 'hop: switch', 'link: wired', 'far-end: Shop box'],
    ]);
    const outside = strawPathOf({
      ...input,
      lineName: 'Tarnfell',
      plan: planThroughTunnel(plan(500, 100), plan(50, 10)),
    });
    expect(outside.map(({ kind }) => kind)).toEqual(['device', 'link', 'hop', 'router', 'line', 'tunnel', 'far-end']);
  });
});
