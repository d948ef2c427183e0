import type { CaseAnswer, MeasureAnswer } from '../case/case-answer';
import type { CaseEvidence, RefusedBecause } from '../case/case-evidence';
import type { CaseRule } from '../case/test-rule';
import { UNFIT_WORDS } from './fitness-words';
import { countWords, rateWords, shareWords } from './quantity-words';

const WAY = { down: 'download', up: 'upload' } as const;

/** Why a run does not count. */
export function refusedWords(because: RefusedBecause): string {
  switch (because.code) {
    case 'unfit':
      return because.flags.map((code) => UNFIT_WORDS[code] ?? code).join(', ');
    case 'left-out':
      return `left out: ${because.reason}`;
    case 'not-by-cable':
      return 'not by cable';
    case 'practice-line':
      return 'through a practice line';
    case 'no-figure':
      return 'a direction was not measured';
    case 'too-soon':
      return `${because.minutes < 1 ? 'under a minute' : countWords(Math.floor(because.minutes), 'minute')} after the one before`;
  }
}

/** How a figure of the contract stands; before the rule is fulfilled that is no answer. */
export function standWords({ fallsShort }: MeasureAnswer, { complete }: CaseAnswer): string {
  return `${fallsShort ? 'falls short' : 'keeps'}${complete ? '' : ' so far'}`;
}

/** One figure of the contract, and how it fared. */
export function measureWords({ measure, direction, contractBps, wantedBps, short, of, unit }: MeasureAnswer): string {
  const way = WAY[direction];
  const all = countWords(of, unit.slice(0, -1));
  if (measure === 'usual')
    return `The usual ${way} rate of ${rateWords(contractBps)} was not reached in ${short} of ${all}.`;
  if (measure === 'least')
    return `The least ${way} rate of ${rateWords(contractBps)} was undercut on ${short} of ${all}.`;
  return `${shareWords(wantedBps / contractBps)} of the advertised ${way} rate of ${rateWords(contractBps)}, which is ${rateWords(wantedBps)}, was never reached on ${short} of ${all}.`;
}

/** What a lay person reads first. */
export function caseSentence(answer: CaseAnswer, evidence: CaseEvidence): string {
  if (evidence.counted.length === 0) return 'No run counts yet.';
  const short = answer.measures.filter(({ fallsShort }) => fallsShort);
  const runs = `${countWords(evidence.counted.length, 'run')} on ${countWords(evidence.days.length, 'day')}`;
  if (answer.measures.length === 0)
    return `The contract’s figures are not written down: ${runs} cannot be held against it.`;
  if (!answer.complete) {
    const stands =
      short.length === 0
        ? 'so far it keeps what the contract names'
        : 'so far it falls short of what the contract names';
    return `Not complete yet: ${runs} count; ${stands}.`;
  }
  return short.length === 0
    ? `The line keeps what the contract names: ${runs}, all measured by the rule.`
    : `The line falls short of the contract: ${runs}, all measured by the rule.`;
}

/** What is still to be measured; empty when the rule is fulfilled. */
export function missingWords({ missingRuns, missingDays, complete }: CaseEvidence, { perDay }: CaseRule): string {
  if (complete) return '';
  const parts = [
    ...(missingRuns > 0 ? [countWords(missingRuns, 'more run')] : []),
    ...(missingDays > 0 ? [`${countWords(missingDays, 'more day')} with ${countWords(perDay, 'run')} each`] : []),
  ];
  return `Missing: ${parts.join(', and ')}.`;
}

/** The rule in words. */
export function ruleWords(rule: CaseRule): readonly string[] {
  return [
    `At least ${countWords(rule.runs, 'run')} on ${countWords(rule.days, 'day')} with ${rule.perDay} or more each, ${countWords(rule.apartMinutes, 'minute')} apart, by cable, each fit to judge the line.`,
    `It falls short when the usual rate is not reached in ${shareWords(rule.usualMissedShare)} of the runs, when the least rate is undercut on ${countWords(rule.leastDays, 'day')}, or when ${shareWords(rule.advertisedShare)} of the advertised rate is never reached on ${countWords(rule.advertisedDays, 'day')}.`,
  ];
}
