import { reportOf } from './run-report';
import { NO_SAMPLES } from '../run/run-samples';
import { sketchOf } from '../picture/run-sketch';
import { OVER_GIGABIT, plainSamples, type PlainLine } from '../run/samples-for-tests';
import { sentenceOf } from '../words/sentence';
import { siteStrawOf, strawPathOf } from '../picture/straw-path';
import { stripDataOf } from '../picture/strip-data';
import { yardstickWords } from '../words/yardstick-words';
import { UNFINISHED_REASONS, unfinishedWords } from '../words/unfinished-reasons';

const PRESS_DESK: PlainLine = { downBps: 486e6, upBps: 97e6, idleMs: 14, loadedDownMs: 30, loadedUpMs: 226 };
const SLOW_CABLE = { medium: 'wired', negotiatedBps: 100e6, mtuBytes: 1500 } as const;

const words = (line: PlainLine, conditions = OVER_GIGABIT) => {
  const { figures, held, delay } = sentenceOf(reportOf(plainSamples(line), conditions), conditions);
  return [figures, held, delay];
};

describe('the report of a run', () => {
  const report = reportOf(plainSamples(PRESS_DESK), OVER_GIGABIT);

  it('finds rates, delays and added delay per direction, though the peer has another clock', () => {
    expect(report.down.rate!.steadyBps / 486e6).toBeCloseTo(1, 5);
    expect(report.up.rate!.steadyBps / 97e6).toBeCloseTo(1, 5);
    expect(report.idleDelay!.medianMs).toBe(14);
    expect(report.down.addedMs).toBe(16);
    expect(report.up.addedMs).toBe(212);
    expect(report.up.workingRoundTrips).toBeCloseTo(60_000 / 226, 5);
  });

  it('rates the bufferbloat by the worse direction', () => {
    expect(report.bloat).toEqual({ rating: 'collapsed', addedMs: 212, direction: 'up' });
  });

  it('holds both directions against the plan when the cable can carry more', () => {
    expect(report.verdict).toBe('full');
    expect(report.down.yardstick).toMatchObject({ status: 'known', source: 'plan', rateBps: 500e6 });
    expect(report.down.shareOfPlan!.share).toBeCloseTo(0.972, 3);
    expect(report.planAnswer).toMatchObject({ word: 'met', because: [] });
  });

  it('takes the cable as the yardstick when it can carry less, and then cannot tell about the plan', () => {
    const slow = reportOf(plainSamples({ ...PRESS_DESK, downBps: 93.7e6, upBps: 93e6 }), {
      ...OVER_GIGABIT,
      link: SLOW_CABLE,
    });
    expect(slow.down.yardstick).toMatchObject({ source: 'link' });
    expect(slow.verdict).toBe('capped');
    expect(slow.planAnswer).toMatchObject({ word: 'cannot tell', because: ['link-below-plan'] });
  });

  it('calls a short fall over a good cable not met, weakened by being one run', () => {
    const short = reportOf(plainSamples({ ...PRESS_DESK, downBps: 310e6 }), OVER_GIGABIT);
    expect(short.down.verdict).toMatchObject({ word: 'thin' });
    expect(short.planAnswer).toMatchObject({ word: 'not met', because: ['single-run'] });
  });

  it('lets a run that reaches the plan prove it met on any link, Wi-Fi too', () => {
    const wifi = { medium: 'wifi', band: '5', linkRateBps: null } as const;
    expect(reportOf(plainSamples(PRESS_DESK), { ...OVER_GIGABIT, link: wifi }).planAnswer!.word).toBe('met');
    const short = reportOf(plainSamples({ ...PRESS_DESK, downBps: 310e6 }), { ...OVER_GIGABIT, link: wifi });
    expect(short.planAnswer).toMatchObject({ word: 'cannot tell', because: ['over-wifi'] });
  });

  it('gives no verdict at all on the peer’s own machine', () => {
    const same = reportOf(plainSamples(PRESS_DESK), { ...OVER_GIGABIT, sameMachine: true });
    expect(same.verdict).toBe('no verdict');
    expect(same.down.verdict).toEqual({ word: 'no verdict', why: 'same-machine' });
    expect(same.planAnswer!.word).toBe('cannot tell');
  });

  it('judges a run inside the office by the link alone, and not at all when the link is unknown', () => {
    const local = { ...OVER_GIGABIT, reach: 'local' } as const;
    const inside = reportOf(plainSamples({ ...PRESS_DESK, downBps: 938e6, upBps: 400e6 }), local);
    expect(inside.down.verdict.word).toBe('full');
    expect(inside.up.verdict.word).toBe('starved');
    expect(inside.verdict).toBe('starved');
    expect(inside.planAnswer).toBeNull();
    expect(reportOf(plainSamples(PRESS_DESK), { ...local, link: { medium: 'unknown' } }).verdict).toBe('no verdict');
  });

  it('says on what edge a verdict stands when the interval straddles a limit', () => {
    const samples = plainSamples({ ...PRESS_DESK, downBps: 450e6 });
    const wobbling = {
      ...samples.download!,
      bytes: samples.download!.bytes.map((stream) =>
        stream.map((value, index) => value + (index % 8 < 4 ? 0 : 500_000)),
      ),
    };
    const rising = wobbling.bytes.map((stream) =>
      stream.map((value, index) => Math.max(value, ...stream.slice(0, index))),
    );
    const report = reportOf({ ...samples, download: { ...wobbling, bytes: rising } }, OVER_GIGABIT);
    const { low, high } = report.down.rate!.intervalBps!;
    expect(low).toBeLessThan(450e6);
    expect(high).toBeGreaterThan(450e6);
    expect(['full', 'thin']).toContain(report.down.verdict.word);
    expect(report.down.verdict).toMatchObject({ edgeOf: report.down.verdict.word === 'full' ? 'thin' : 'full' });
  });

  it('invents nothing from nothing', () => {
    const empty = reportOf(NO_SAMPLES, OVER_GIGABIT);
    expect(empty).toMatchObject({ idleDelay: null, verdict: 'no verdict', bloat: null });
    expect(empty.down).toMatchObject({ rate: null, loadedDelay: null, addedMs: null, bytes: null, shareOfPlan: null });
    expect(sentenceOf(empty, OVER_GIGABIT).figures).toBe('Nothing was measured.');
  });

  it('has no upload figure on the strip or in delay when the peer’s clock is not known', () => {
    const samples = { ...plainSamples(PRESS_DESK), peerClockOffsetMs: null };
    const report = reportOf(samples, OVER_GIGABIT);
    expect(report.up.rate!.steadyBps / 97e6).toBeCloseTo(1, 5);
    expect(report.up.addedMs).toBeNull();
    expect(stripDataOf(samples).up).toBeNull();
  });
});

describe('the sentence', () => {
  it('puts numbers first, then the plan, then the delay', () => {
    expect(words(PRESS_DESK)).toEqual([
      '486 Mb/s down and 97.0 up.',
      'The plan is 500 down and 100 up: as paid for both ways.',
      'But while somebody uploads, everything waits 212 ms longer (14 ms of delay when idle): calls break up, and remote desktops cannot be used.',
    ]);
  });

  it('names each direction when they differ', () => {
    expect(words({ ...PRESS_DESK, downBps: 200e6, loadedUpMs: 15, loadedDownMs: 16 })).toEqual([
      '200 Mb/s down and 97.0 up.',
      'The plan is 500 down and 100 up: only 40 % of it down, as paid for up.',
      '14 ms of delay when idle, and it hardly grows while the line is full (+2.0 ms).',
    ]);
  });

  it('says that a slow cable keeps the plan from being judged', () => {
    const held = words({ ...PRESS_DESK, downBps: 93.7e6, upBps: 93e6 }, { ...OVER_GIGABIT, link: SLOW_CABLE })[1];
    expect(held).toBe(
      'The plan is 500 down and 100 up. This cable can show 94.1 at best: all that this link carries down, as paid for up, so it cannot tell whether the plan is met.',
    );
  });

  it('holds a local run against the cable, and says when there is no plan or no knowledge of the link', () => {
    const local = { ...OVER_GIGABIT, reach: 'local' } as const;
    expect(words({ ...PRESS_DESK, downBps: 938e6, upBps: 936e6 }, local)[1]).toBe(
      'The cable can show 941: as it should be both ways.',
    );
    expect(words(PRESS_DESK, { ...local, link: { medium: 'unknown' } })[1]).toMatch(/not known, so there is nothing/);
    expect(words(PRESS_DESK, { ...OVER_GIGABIT, plan: null })[1]).toMatch(/^No plan is known for this line/);
    expect(words(PRESS_DESK, { ...OVER_GIGABIT, sameMachine: true })[1]).toMatch(/one machine/);
  });
});

describe('the yardstick’s arithmetic', () => {
  const arithmetic = (changes: object) =>
    yardstickWords(reportOf(plainSamples(PRESS_DESK), { ...OVER_GIGABIT, ...changes }).down.yardstick);

  it('is spelled out', () => {
    expect(arithmetic({})).toEqual([
      '1000 Mb/s Ethernet × 1448/1538 = 941 Mb/s',
      'the plan says 500 Mb/s',
      '500 Mb/s is the lower, so the plan is the yardstick',
    ]);
  });

  it('turns a line rate into payload when the contract counts headers', () => {
    const plan = { ...OVER_GIGABIT.plan!, basis: 'line' };
    expect(arithmetic({ plan })[1]).toBe('the plan says 500 Mb/s on the line × 1448/1518 = 477 Mb/s of payload');
  });

  it('says what is not known', () => {
    expect(arithmetic({ link: { medium: 'unknown' } })[0]).toBe('what the link can carry is not known');
    expect(arithmetic({ link: { medium: 'unknown' }, plan: null })).toEqual([
      'what the link can carry is not known',
      'no plan is known for this line',
    ]);
  });
});

describe('pictures', () => {
  it('put upload and download on one clock and hatch ramps and settling', () => {
    const strip = stripDataOf(plainSamples(PRESS_DESK));
    expect(strip.durationMs).toBe(12_500);
    expect(strip.up!.atMs[0]).toBe(7500);
    expect(strip.idleMedianMs).toBe(14);
    expect(strip.discarded).toEqual([
      { fromMs: 2000, toMs: 3000 },
      { fromMs: 7000, toMs: 7500 },
      { fromMs: 7500, toMs: 8500 },
    ]);
  });

  it('leave holes in a sketch where nothing was measured', () => {
    const { downBps, upBps } = sketchOf(stripDataOf(plainSamples(PRESS_DESK)));
    expect(downBps[0]).toBeNull();
    expect(downBps.at(-1)).toBeNull();
    expect(upBps.at(-1)).toBe(97e6);
  });

  it('mark the link as the kink only where it was seen to hold the run back, and know nothing of a doubtful one', () => {
    const path = (changes: object) =>
      strawPathOf({
        ...{ ...OVER_GIGABIT, deviceName: 'Scan room', peerName: 'Hilltop', lineName: 'Tarnfell' },
        ...{ heldByLink: false, linkDoubtful: false, ...changes },
      });
    const kinks = (changes: object) => path(changes).filter((segment) => segment.kink);
    expect(kinks({ link: SLOW_CABLE, heldByLink: true })).toMatchObject([{ kind: 'link' }]);
    // A gigabit cable under a plan of 1000 carries 941: no kink while the figure is far from that.
    expect(kinks({ link: SLOW_CABLE })).toEqual([]);
    expect(path({ link: SLOW_CABLE, linkDoubtful: true })[1]!.capacityBps).toBeNull();
    expect(path({ reach: 'local' }).map((segment) => segment.kind)).toEqual(['device', 'link', 'hop', 'far-end']);
  });

  it('show a site without a plan or devices as unknown, not as zero', () => {
    const straw = siteStrawOf({ deviceCount: 0, links: [], lineName: null, plan: null, outsidePeerName: null });
    expect(straw.every((segment) => segment.capacityBps === null)).toBe(true);
  });
});

describe('unfinished reasons', () => {
  it('each say what happened and what to do', () => {
    for (const code of Object.keys(UNFINISHED_REASONS) as (keyof typeof UNFINISHED_REASONS)[])
      expect(unfinishedWords(code)).toMatch(/^[A-Z].+\. [A-Z].+\.$/);
  });
});
