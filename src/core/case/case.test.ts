import { caseSentence, measureWords, missingWords, refusedWords, ruleWords, standWords } from '../words/case-words';
import { caseAnswer } from './case-answer';
import { caseEvidence, type CaseRun } from './case-evidence';
import { caseRunIsDue, caseSpacingMinutes } from './next-case-run';
import { USUAL_CASE_RULE, type CaseContract } from './test-rule';

const MINUTE_MS = 60_000;
const CONTRACT: CaseContract = {
  down: { advertisedBps: 500e6, usualBps: 450e6, leastBps: 300e6 },
  up: { advertisedBps: 100e6, usualBps: null, leastBps: 60e6 },
};

/** `each` runs on each day, ten minutes apart; `down` of the n-th run of a day. */
function measured(days: number, each: number, down: (day: number, run: number) => number): CaseRun[] {
  return Array.from({ length: days * each }, (_, index) => {
    const [day, run] = [Math.floor(index / each), index % each];
    return {
      ...{ id: `r${index}`, startedAtMs: (day * 1440 + run * 10) * MINUTE_MS, day: `2026-11-0${day + 1}` },
      ...{ byCable: true, practice: false, downBps: down(day, run), upBps: 97e6, unfit: [], leftOut: null },
    };
  });
}
const answerOf = (runs: readonly CaseRun[]) =>
  caseAnswer(caseEvidence(runs, USUAL_CASE_RULE), CONTRACT, USUAL_CASE_RULE);

describe('which runs count', () => {
  it('are those by cable, fit, real and far enough apart, and each other one has its reason', () => {
    const [first, second, third, fourth, fifth] = measured(1, 5, () => 480e6) as [
      CaseRun,
      CaseRun,
      CaseRun,
      CaseRun,
      CaseRun,
    ];
    const { counted, refused } = caseEvidence(
      [
        first,
        { ...second, startedAtMs: first.startedAtMs + 2 * MINUTE_MS },
        { ...third, byCable: false },
        { ...fourth, unfit: ['other-traffic'] },
        { ...fifth, practice: true },
        { ...fifth, leftOut: 'the router was updating' },
      ],
      USUAL_CASE_RULE,
    );
    expect(counted).toEqual([first]);
    expect(refused.map(({ because }) => refusedWords(because))).toEqual([
      ...['2 minutes after the one before', 'not by cable', 'others were on the line', 'through a practice line'],
      'left out: the router was updating',
    ]);
  });

  it('are not pushed away by one that came too soon', () => {
    const runs = measured(1, 4, () => 480e6).map((run, index) => ({ ...run, startedAtMs: index * 3 * MINUTE_MS }));
    expect(caseEvidence(runs, USUAL_CASE_RULE).counted.map(({ id }) => id)).toEqual(['r0', 'r2']);
  });

  it('fulfil the rule with thirty on three days of ten, and not before', () => {
    expect(
      caseEvidence(
        measured(3, 10, () => 480e6),
        USUAL_CASE_RULE,
      ).complete,
    ).toBe(true);
    const few = caseEvidence(
      measured(3, 9, () => 480e6),
      USUAL_CASE_RULE,
    );
    expect(few).toMatchObject({ complete: false, missingRuns: 3, missingDays: 3 });
    expect(missingWords(few, USUAL_CASE_RULE)).toBe('Missing: 3 more runs, and 3 more days with 10 runs each.');
    // Thirty on two days are not enough either.
    expect(
      caseEvidence(
        measured(2, 15, () => 480e6),
        USUAL_CASE_RULE,
      ),
    ).toMatchObject({ complete: false, missingRuns: 0, missingDays: 1 });
  });

  it('are none where nothing was measured', () => {
    const none = caseEvidence([], USUAL_CASE_RULE);
    expect(none).toMatchObject({ counted: [], days: [], complete: false });
    const answer = caseAnswer(none, CONTRACT, USUAL_CASE_RULE);
    expect(caseSentence(answer, none)).toBe('No run counts yet.');
    // Nothing is said to be kept that nobody measured.
    expect(answer.measures).toEqual([]);
  });
});

describe('the next run of a case', () => {
  const at = (day: number, hour: number) => ({
    atMs: (day * 1440 + hour * 60) * MINUTE_MS,
    day: `2026-11-0${day + 1}`,
    hour,
  });
  const none = caseEvidence([], USUAL_CASE_RULE);

  it('is due by day, one and a half hours after the last, whether that counted or not', () => {
    // Fifteen hours for ten runs.
    expect(caseSpacingMinutes(USUAL_CASE_RULE)).toBe(90);
    expect(caseRunIsDue(none, USUAL_CASE_RULE, at(0, 7), null)).toBe(true);
    expect(caseRunIsDue(none, USUAL_CASE_RULE, at(0, 9), at(0, 8).atMs)).toBe(false);
    expect(caseRunIsDue(none, USUAL_CASE_RULE, at(0, 10), at(0, 8).atMs)).toBe(true);
    for (const hour of [3, 6, 22, 23]) expect(caseRunIsDue(none, USUAL_CASE_RULE, at(0, hour), null)).toBe(false);
  });

  it('is none on a day that has enough, nor when the case is complete', () => {
    const oneDay = caseEvidence(
      measured(1, 10, () => 480e6),
      USUAL_CASE_RULE,
    );
    expect(caseRunIsDue(oneDay, USUAL_CASE_RULE, at(0, 20), null)).toBe(false);
    expect(caseRunIsDue(oneDay, USUAL_CASE_RULE, at(1, 8), null)).toBe(true);
    expect(
      caseRunIsDue(
        caseEvidence(
          measured(3, 10, () => 480e6),
          USUAL_CASE_RULE,
        ),
        USUAL_CASE_RULE,
        at(4, 8),
        null,
      ),
    ).toBe(false);
  });

  it('is never nearer than the rule allows', () => {
    expect(caseSpacingMinutes({ ...USUAL_CASE_RULE, perDay: 200, apartMinutes: 30 })).toBe(30);
  });
});

describe('what a case comes to', () => {
  it('is that a line keeps its contract', () => {
    const runs = measured(3, 10, () => 480e6);
    const answer = answerOf(runs);
    expect(answer).toMatchObject({ complete: true, fallsShort: false });
    expect(answer.measures.map(({ measure, direction }) => `${measure} ${direction}`)).toEqual([
      ...['usual down', 'least down', 'advertised down', 'least up', 'advertised up'],
    ]);
    expect(caseSentence(answer, caseEvidence(runs, USUAL_CASE_RULE))).toMatch(
      /^The line keeps what the contract names: 30 runs on 3 days/,
    );
  });

  it('is that the usual rate is missed when 27 of 30 runs do not reach it, and not with 26', () => {
    const usual = (short: number) =>
      answerOf(measured(3, 10, (day, run) => (day * 10 + run < short ? 440e6 : 460e6))).measures[0]!;
    expect(usual(27)).toMatchObject({ short: 27, of: 30, limit: 27, fallsShort: true });
    expect(usual(26)).toMatchObject({ short: 26, fallsShort: false });
    expect(measureWords(usual(27))).toBe('The usual download rate of 450 Mb/s was not reached in 27 of 30 runs.');
  });

  it('is that the least rate is undercut when one run on each of two days is below it', () => {
    const least = (days: number) =>
      answerOf(measured(3, 10, (day, run) => (day < days && run === 4 ? 290e6 : 480e6))).measures[1]!;
    expect(least(2)).toMatchObject({ short: 2, of: 3, fallsShort: true });
    expect(least(1)).toMatchObject({ short: 1, fallsShort: false });
  });

  it('is that nine tenths of the advertised rate are never reached on two of three days', () => {
    const advertised = (days: number) =>
      answerOf(measured(3, 10, (day, run) => (day < days || run > 0 ? 449e6 : 451e6))).measures[2]!;
    expect(advertised(2)).toMatchObject({ wantedBps: 450e6, short: 2, fallsShort: true });
    expect(advertised(1)).toMatchObject({ short: 1, fallsShort: false });
    expect(measureWords(advertised(2))).toContain(
      '90 % of the advertised download rate of 500 Mb/s, which is 450 Mb/s, was never reached on 2 of 3 days',
    );
  });

  it('is no answer before the rule is fulfilled, whatever the runs show so far', () => {
    const runs = measured(2, 10, () => 100e6);
    const evidence = caseEvidence(runs, USUAL_CASE_RULE);
    const answer = caseAnswer(evidence, CONTRACT, USUAL_CASE_RULE);
    expect(answer).toMatchObject({ complete: false, fallsShort: true });
    expect(answer.measures.map((measure) => standWords(measure, answer))).toContain('falls short so far');
    expect(caseSentence(answer, evidence)).toBe(
      'Not complete yet: 20 runs on 2 days count; so far it falls short of what the contract names.',
    );
  });

  it('says so where the contract’s figures are not known', () => {
    const none = { advertisedBps: null, usualBps: null, leastBps: null };
    const evidence = caseEvidence(
      measured(3, 10, () => 1),
      USUAL_CASE_RULE,
    );
    const answer = caseAnswer(evidence, { down: none, up: none }, USUAL_CASE_RULE);
    expect(answer).toMatchObject({ measures: [], fallsShort: false });
    expect(caseSentence(answer, evidence)).toContain('figures are not written down');
  });

  it('tells its rule in two sentences', () => {
    expect(ruleWords(USUAL_CASE_RULE)).toEqual([
      'At least 30 runs on 3 days with 10 or more each, 5 minutes apart, by cable, each fit to judge the line.',
      'It falls short when the usual rate is not reached in 90 % of the runs, when the least rate is undercut on 2 days, or when 90 % of the advertised rate is never reached on 2 days.',
    ]);
  });
});
