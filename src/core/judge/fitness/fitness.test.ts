import { readFileSync } from 'node:fs';
import { reportOf } from '../run-report';
import type { RunConditions } from '../../run/run-conditions';
import type { RunSamples } from '../../run/run-samples';
import { OVER_GIGABIT, plainSamples } from '../../run/samples-for-tests';
import { flagWords } from '../../words/fitness-words';
import { FITNESS_EFFECTS } from './fitness-flag';
import type { KernelSighting } from '../../domain/sightings';

const LINE = { downBps: 310e6, upBps: 97e6, idleMs: 14, loadedDownMs: 30, loadedUpMs: 40 };
const CLIENT = {
  ...{ wallMs: 1.7e12, wallSpanMs: 13_000, spanMs: 13_000, stalls: [] },
  ...{ selfReadBps: 9e9, otherTraffic: null, powerSaving: null },
};
const SIGHTING: KernelSighting = {
  ...{ atMs: 1, port: 50_000, mssBytes: 1448, pathMtuBytes: 1500, rttMs: 14, minRttMs: 14, retransmitted: 0 },
  ...{ spurious: 0, bytesAcked: 1e8, busyMs: 5000, receiverLimitedMs: 0, congestionControl: 'cubic' },
};

function flagsOf(samples: Partial<RunSamples>, conditions: Partial<RunConditions> = {}) {
  const report = reportOf({ ...plainSamples(LINE), client: CLIENT, ...samples }, { ...OVER_GIGABIT, ...conditions });
  return { codes: report.fitness.map(({ code }) => code), report };
}

describe('fitness', () => {
  it('of a plain run over a good cable is only that it is one run', () => {
    expect(flagsOf({ kernel: [SIGHTING] }).codes).toEqual(['single-run']);
  });

  it.each([
    ['device-limited', { kernel: [{ ...SIGHTING, receiverLimitedMs: 3000 }] }, {}],
    ['device-limited', { client: { ...CLIENT, selfReadBps: 400e6 } }, {}],
    ['device-limited', { client: { ...CLIENT, stalls: [{ atMs: 4000, lateMs: 1500 }] } }, {}],
    ['through-tunnel', { kernel: [{ ...SIGHTING, mssBytes: 1368 }] }, {}],
    ['peer-busy', { peerLoad: [{ atMs: 1, otherSessions: 1, cpuShare: 0.3, loopLateMs: 1 }] }, {}],
    ['peer-busy', { peerLoad: [{ atMs: 1, otherSessions: 0, cpuShare: 0.99, loopLateMs: 1 }] }, {}],
    ['peer-below-plan', {}, { peerLinkBps: 100e6 }],
    ['other-traffic', { client: { ...CLIENT, otherTraffic: { downBytes: 20e6, upBytes: 0, overMs: 10_000 } } }, {}],
    ['other-traffic', {}, { told: ['backup'] }],
    ['line-in-use', {}, { lineUse: { downBps: 180e6, upBps: 0, fromMs: 0, untilMs: 40_000 } }],
    ['clock-jump', { client: { ...CLIENT, wallSpanMs: 3_613_000 } }, {}],
    ['power-saving', { client: { ...CLIENT, powerSaving: 'the battery is at 9 %' } }, {}],
    ['page-hidden', {}, { pageHiddenMs: 2100 }],
    ['other-peer-than-usual', {}, { otherPeerThanUsual: true }],
  ] as const)('%s is raised by the fact that shows it', (code, samples, conditions) => {
    const { codes, report } = flagsOf(samples, conditions);
    expect(codes).toContain(code);
    // What bars or voids takes the answer "not met" away; what weakens leaves it and is named.
    const expected = FITNESS_EFFECTS[code] === 'weakens' ? 'not met' : 'cannot tell';
    expect(report.planAnswer).toMatchObject({ word: expected });
    expect(report.planAnswer!.because).toContain(code);
  });

  it('says which way others used the line, and by how much, for that way alone', () => {
    const lineUse = { downBps: 180e6, upBps: 2e6, fromMs: 0, untilMs: 40_000 };
    const { report } = flagsOf({ kernel: [SIGHTING] }, { lineUse });
    const flags = report.fitness.filter(({ code }) => code === 'line-in-use');
    expect(flags).toMatchObject([{ direction: 'down', facts: { othersBps: 180e6, seconds: 40 } }]);
    expect(flagWords(flags[0]!).fact).toMatch(
      /^others moved 180 Mb\/s down over the line beside the 3\d\d Mb\/s of this run/,
    );
    // What a tunnel adds to each packet is nobody else's.
    const wrapped = { ...lineUse, downBps: 30e6 };
    expect(flagsOf({}, { lineUse: wrapped }).codes).toContain('line-in-use');
    expect(flagsOf({}, { lineUse: wrapped, reach: 'tunnel' }).codes).not.toContain('line-in-use');
    expect(flagsOf({}, { lineUse, reach: 'tunnel' }).codes).toContain('line-in-use');
    // In the office itself nobody crosses the line, and where nobody counted nothing is said.
    for (const other of [{ lineUse, reach: 'local' }, { lineUse: null }] as const)
      expect(flagsOf({}, other).codes).not.toContain('line-in-use');
  });

  it('keeps quiet about what only looks like a sign', () => {
    const quiet = flagsOf({
      kernel: [{ ...SIGHTING, mssBytes: 1440, receiverLimitedMs: 200 }],
      peerLoad: [{ atMs: 1, otherSessions: 0, cpuShare: 0.6, loopLateMs: 4 }],
      client: {
        ...CLIENT,
        otherTraffic: { downBytes: 100_000, upBytes: 40_000, overMs: 10_000 },
        stalls: [{ atMs: 4000, lateMs: 60 }],
      },
    });
    expect(quiet.codes).toEqual(['single-run']);
  });

  it('ignores what the kernel says of a practice line, which is the relay and not the client', () => {
    const { codes } = flagsOf(
      { kernel: [{ ...SIGHTING, mssBytes: 536, receiverLimitedMs: 5000 }] },
      { practice: true },
    );
    expect(codes).toEqual(['single-run']);
  });

  it('is described flag by flag in docs/measurement.md', () => {
    const text = readFileSync('docs/measurement.md', 'utf8');
    for (const [code, effect] of Object.entries(FITNESS_EFFECTS))
      expect(text).toMatch(new RegExp(`\\| \`${code}\` \\| ${effect} \\|`));
  });
});
