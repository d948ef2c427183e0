import { FITNESS_EFFECTS, flagWords, type RunReport } from '@/core';

const ANSWER_WORDS = {
  met: 'The plan is met.',
  'not met': 'The plan is not met.',
  'cannot tell': 'It cannot tell whether the plan is met.',
} as const;

const DIRECTION_WORDS = { met: 'is met.', 'not met': 'is not met.', 'cannot tell': 'cannot be told.' } as const;

const EFFECT_WORDS = {
  voids: 'no verdict at all',
  unproven: 'says nothing about the plan',
  bars: 'bars “not met”',
  weakens: 'weakens it',
} as const;

interface RunFitnessProps {
  readonly report: RunReport;
  /** Whether it is one of three or more: then it is no longer a single run. */
  readonly inFullSet: boolean;
}

/** Whether the run counts as evidence about the plan, and each fact for or against it. */
export function RunFitness({ report: { planAnswer, fitness }, inFullSet }: RunFitnessProps) {
  const ofDirection = (['down', 'up'] as const).flatMap((direction) => {
    const answer = planAnswer?.[direction];
    return answer === undefined || answer.word === planAnswer?.word
      ? []
      : [`${direction} ${DIRECTION_WORDS[answer.word]}`];
  });
  const flags = fitness.filter(({ code }) => !(inFullSet && code === 'single-run'));
  return (
    <section aria-label="Evidence">
      <h2 className="mb-2 font-semibold">As evidence about the plan</h2>
      <p>
        {planAnswer === null
          ? 'This run did not cross the provider’s line, or no plan is known: it says nothing about one.'
          : [ANSWER_WORDS[planAnswer.word], ...ofDirection].join(' By direction: ')}
      </p>
      {flags.length > 0 && (
        <ul className="mt-2 space-y-2 text-[0.9rem]">
          {flags
            .map((flag) => ({ ...flag, ...flagWords(flag) }))
            .map(({ code, fact, nextStep, direction }) => (
              <li key={`${code} ${direction}`} className="border-l-2 border-hairline pl-3">
                <span className="text-quiet">
                  {EFFECT_WORDS[FITNESS_EFFECTS[code]]}
                  {direction === undefined ? '' : ` (${direction})`}:{' '}
                </span>
                {fact}. <span className="text-quiet">Next: {nextStep}.</span>
              </li>
            ))}
        </ul>
      )}
    </section>
  );
}
