import fc from 'fast-check';
import type { Receipt } from '../../run/receipt';
import { reportOf } from '../run-report';
import type { RunSamples } from '../../run/run-samples';
import { OVER_GIGABIT, plainSamples } from '../../run/samples-for-tests';
import { finalBytes, type CounterSeries } from '../../measure/rate/counter-series';
import { flagWords } from '../../words/fitness-words';
import { incredibleFact } from './credibility';

const LINE = { downBps: 480e6, upBps: 97e6, idleMs: 14, loadedDownMs: 30, loadedUpMs: 40 };
const HONEST = plainSamples(LINE);
const LIMIT = 60e9;

const spanOf = (series: CounterSeries | null) => (series === null ? 0 : series.atMs.at(-1)! - series.atMs[0]!);

/** What an honest peer signs for these samples. */
function receiptOf(samples: RunSamples, changes: Partial<Receipt> = {}): Receipt {
  const of = (series: CounterSeries | null) => ({
    ...{ bytes: finalBytes(series) ?? 0, activeMs: spanOf(series), streams: [] },
  });
  return {
    ...{ session: 's', runId: 'r', ticketId: 't', openedMs: 0, endedMs: 20_000 },
    ...{ down: of(samples.download), up: of(samples.upload), echoes: samples.probes.sentMs.length },
    ...{ sameMachine: false, ipVersion: 4, minRttMs: 13.2, otherSessions: 0 },
    ...changes,
  };
}

/** The same samples with counters or times turned by a factor. */
function scaled(samples: RunSamples, bytes: number, ms = 1, rtt = 1): RunSamples {
  const turn = (series: CounterSeries | null) =>
    series === null
      ? null
      : {
          atMs: series.atMs.map((at) => series.atMs[0]! + (at - series.atMs[0]!) * ms),
          bytes: series.bytes.map((stream) => stream.map((count) => Math.round(count * bytes))),
        };
  return {
    ...samples,
    download: turn(samples.download),
    upload: turn(samples.upload),
    probes: { ...samples.probes, rttMs: samples.probes.rttMs.map((each) => (each === null ? null : each * rtt)) },
  };
}

describe('samples that cannot be', () => {
  const factOf = (samples: RunSamples, receipt = receiptOf(HONEST)) => {
    const facts = incredibleFact(samples, receipt, LIMIT);
    return facts === null ? null : flagWords({ code: 'not-credible', facts }).fact;
  };

  it('are told from honest ones, which pass whatever the line', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 900 }),
        fc.integer({ min: 1, max: 900 }),
        fc.integer({ min: 2, max: 600 }),
        (down, up, idleMs) => {
          const samples = plainSamples({ ...LINE, downBps: down * 1e6, upBps: up * 1e6, idleMs });
          expect(incredibleFact(samples, receiptOf(samples, { minRttMs: idleMs * 0.95 }), LIMIT)).toBeNull();
        },
      ),
      { numRuns: 60 },
    );
  });

  it('are those times a million, those 3 % above what the peer moved, and those of a shortened time', () => {
    expect(factOf(scaled(HONEST, 1e6))).toMatch(/the ticket allowed 60\.0 GB/);
    expect(factOf(scaled(HONEST, 1.03))).toMatch(/were handed in, and the peer sent/);
    expect(factOf(scaled(HONEST, 1, 0.4))).toMatch(/the peer was busy with it/);
    expect(factOf(scaled(HONEST, 1.01))).toBeNull();
  });

  it('are round trips below what the peer’s kernel saw, and of nothing at all', () => {
    expect(factOf(scaled(HONEST, 1, 1, 0))).toMatch(/round trips of 0 ms/);
    expect(factOf(scaled(HONEST, 1, 1, 0.5))).toMatch(/kernel saw none below 13\.2 ms/);
    expect(factOf(scaled(HONEST, 1, 1, 0), receiptOf(HONEST, { minRttMs: null }))).toMatch(/takes some time/);
  });

  it('are not round trips of 0 by a clock of 1 ms on a path of half a millisecond', () => {
    const client = {
      ...{ wallMs: 1.7e12, wallSpanMs: 13_000, spanMs: 13_000, stalls: [], selfReadBps: null },
      ...{ otherTraffic: null, powerSaving: null, clockStepMs: 1 },
    };
    const coarse = { ...scaled(HONEST, 1, 1, 0), client };
    expect(factOf(coarse, receiptOf(HONEST, { minRttMs: 0.4 }))).toBeNull();
    // A clock that claims steps of an hour is not taken at its word.
    expect(
      factOf({ ...coarse, client: { ...client, clockStepMs: 999 } }, receiptOf(HONEST, { minRttMs: 400 })),
    ).not.toBeNull();
  });

  it('are more echoes than the peer sent', () => {
    expect(factOf(HONEST, receiptOf(HONEST, { echoes: 3 }))).toMatch(/echoes were handed in, and the peer sent 3/);
  });

  it('get no verdict and say nothing about the plan', () => {
    const conditions = { ...OVER_GIGABIT, receipt: receiptOf(HONEST), limitBytes: LIMIT };
    const forged = reportOf(scaled(HONEST, 1e6), conditions);
    expect(forged.verdict).toBe('no verdict');
    expect(forged.down.verdict).toEqual({ word: 'no verdict', why: 'not-credible' });
    expect(forged.planAnswer).toMatchObject({ word: 'cannot tell', because: ['not-credible'] });
    expect(reportOf(HONEST, conditions).verdict).toBe('full');
  });
});

describe('a run without a receipt', () => {
  it('keeps its figures and verdict, says so, and proves nothing about the plan', () => {
    const report = reportOf(HONEST, { ...OVER_GIGABIT, receipt: null });
    expect(report.verdict).toBe('full');
    expect(report.fitness.map(({ code }) => code)).toContain('no-receipt');
    expect(report.planAnswer).toMatchObject({ word: 'cannot tell', because: ['no-receipt'] });
  });

  it('from before there were any is what it was', () => {
    expect(reportOf(HONEST, OVER_GIGABIT).planAnswer!.word).toBe('met');
  });
});
