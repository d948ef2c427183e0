import type { Finding, FindingFacts } from '../diagnose/finding';
import { segmentFor } from '../diagnose/office-for-tests';
import { DIAGNOSED_KINDS } from '../diagnose/segment';
import type { Plan } from '../domain/plan';
import { findingWords, hoursWords, listed, segmentWords } from './finding-words';

const PLAN: Plan = {
  ...{ name: 'Tarnfell Fibre 500/100', downBps: 500e6, upBps: 100e6, basis: 'payload', fullFrom: 0.9 },
  ...{ leastDownBps: 300e6, leastUpBps: null },
};
const LINE = segmentFor('line:l', 'line', null, { name: 'Tarnfell Fibre 500/100' });

function finding(facts: FindingFacts, changes: Partial<Finding> = {}): Finding {
  return {
    ...{ key: 'k', facts, strength: 'found', segments: [LINE], sinceMs: 1, hours: null, deviceIds: ['a', 'b'] },
    ...{ evidence: { for: [], against: [] }, weight: 1 },
    ...changes,
  };
}

const SAID: readonly {
  readonly facts: FindingFacts;
  readonly sentence: string;
  readonly changes?: Partial<Finding>;
}[] = [
  {
    facts: { code: 'line-below-plan', measuredBps: 310e6, plan: PLAN, direction: 'down', probability: 0.95 },
    sentence: 'The line Tarnfell Fibre 500/100 gives 310 of the 500 Mb/s down that are paid for.',
  },
  {
    facts: { code: 'line-below-least', measuredBps: 210e6, leastBps: 300e6, plan: PLAN, direction: 'down' },
    sentence: 'The line Tarnfell Fibre 500/100 gives 210 Mb/s down, below the 300 that the contract names at least.',
  },
  {
    facts: { code: 'line-slow-in-hours', bps: 310e6, elseBps: 486e6, occasions: 9, direction: 'down', plan: PLAN },
    sentence: 'Between 19:00 and 22:00 the line gives 310 Mb/s down; else 486. Seen 9 times.',
    changes: { hours: [19, 20, 21] },
  },
  {
    facts: { code: 'queue-too-deep', where: 'line', direction: 'up', addedMs: 227, rating: 'collapsed' },
    sentence:
      'Whoever uploads makes everybody wait 227 ms (2 devices): the queue before the upload of the line Tarnfell Fibre 500/100 is too deep.',
  },
  {
    facts: { code: 'queue-too-deep', where: 'inside', direction: 'down', addedMs: 140, rating: 'soggy' },
    sentence: 'The 2.4 GHz air of “ceiling” has a deep queue: whoever downloads makes everything on it wait 140 ms.',
    changes: { segments: [segmentFor('air:c|2.4', 'air', null, { name: 'ceiling', band: '2.4' })] },
  },
  {
    facts: { code: 'packets-lost', resentShare: 0.012, runs: 4 },
    sentence: '1 % of what is sent on this way gets lost and has to be sent again (4 runs).',
  },
  {
    facts: { code: 'peer-below-plan', peerBps: 94e6, plan: PLAN },
    sentence: 'The far end’s own port shows 94.0 Mb/s at most; the plan is 500.',
  },
];

describe('a finding in words', () => {
  it.each(SAID)('has its figures first and what to do: $sentence', ({ facts, sentence, changes }) => {
    const words = findingWords(finding(facts, changes));
    expect(words.sentence).toBe(sentence);
    expect(words.nextStep).toMatch(/^[A-Z].*\.$/);
  });

  it('names several that cannot be told apart, the likeliest first, and says that one more test would', () => {
    const facts: FindingFacts = {
      ...{ code: 'segment-holds-back', measuredBps: 94e6, expectedBps: 941e6, direction: 'down' },
      ...{ compared: null, probability: 0.5 },
    };
    const segments = [
      segmentFor('cable:d', 'cable', null, { name: 'Press desk' }),
      segmentFor('device:d', 'device', null, { name: 'Press desk' }),
    ];
    const { sentence, nextStep } = findingWords(finding(facts, { segments }));
    expect(sentence).toBe('94.0 of 941 Mb/s down: the cable or port of Press desk or Press desk.');
    expect(nextStep).toContain('one more test');
  });

  const BOTH_WAYS = ['down', 'up'] as const;
  const EVERY: FindingFacts[] = [
    ...SAID.map(({ facts }) => facts),
    { code: 'cable-came-up-slow', negotiatedBps: 100e6, othersBps: 1e9, othersCount: 1, measuredBps: null },
    { code: 'cable-came-up-slow', negotiatedBps: 100e6, othersBps: 1e9, othersCount: 0, measuredBps: 93e6 },
    ...BOTH_WAYS.flatMap((direction): FindingFacts[] => [
      { code: 'tunnel-slower-end', measuredBps: 18e6, plan: { ...PLAN, slowerEnd: 'here and there' }, direction },
      { code: 'tunnel-slower-end', measuredBps: 18e6, plan: PLAN, direction },
      { code: 'contradicting-runs', lowBps: 90e6, highBps: 940e6, direction },
      { code: 'queue-too-deep', where: 'tunnel', direction, addedMs: 90, rating: 'soggy' },
      {
        ...{ code: 'swap-told', what: 'other-cable', direction, beforeBps: 93e6, afterBps: 938e6 },
        ...{ deviceName: 'Press desk', runsBefore: 3, runsAfter: 3 },
      },
      {
        ...{ code: 'segment-holds-back', measuredBps: 385e6, expectedBps: 941e6, direction, probability: 0.95 },
        compared: { deviceName: 'Press desk', bps: 940e6 },
      },
    ]),
  ];
  const NAMES = ['x'.repeat(200), 'مكتب الطباعة', '<b>desk</b>', '${name} {}', '\u202eksed', '…', 'null'] as const;

  it.each(NAMES)('is whole sentences whatever it is called: %s', (name) => {
    for (const facts of EVERY)
      for (const kind of ['line', 'cable', 'device', 'air', 'tunnel', 'router'] as const)
        for (const hours of [null, [19, 20]]) {
          const segments = [segmentFor(`${kind}:x`, kind, null, { name, deviceId: 'd' })];
          const { sentence, nextStep } = findingWords(finding(facts, { segments, hours }));
          expect(sentence.replaceAll(name, '')).not.toMatch(/undefined|null|NaN|\[object|Infinity/);
          expect(sentence).toMatch(/\.$|\?$/);
          expect(nextStep).toMatch(/^[A-Z].*\.$/);
        }
  });

  it('is a whole sentence without any segment where one may be missing', () => {
    for (const facts of EVERY.filter(({ code }) => ['packets-lost', 'contradicting-runs', 'swap-told'].includes(code)))
      expect(findingWords(finding(facts, { segments: [] })).sentence).toMatch(/^\S.*\.$/);
  });

  it('has words for every kind of segment, with and without a name', () => {
    for (const kind of DIAGNOSED_KINDS)
      for (const name of [null, 'Scan room']) expect(segmentWords(segmentFor('x', kind, null, { name }))).toMatch(/\S/);
  });
});

describe('hours of the day', () => {
  it('that follow each other are one span, through midnight too', () => {
    expect(hoursWords([20, 19, 21])).toBe('between 19:00 and 22:00');
    expect(hoursWords([8, 19])).toBe('between 08:00 and 09:00 and 19:00 and 20:00');
    expect(hoursWords([23, 0, 1])).toBe('between 23:00 and 02:00');
  });
});

describe('a list', () => {
  it('has its last word before the last of several', () => {
    expect([listed([]), listed(['a']), listed(['a', 'b']), listed(['a', 'b', 'c'], 'and')]).toEqual([
      ...['', 'a', 'a or b', 'a, b and c'],
    ]);
  });
});
