import { sizeWords } from '@/core';
import type { KeepingShown } from '@/services';
import { ActionForm, TextField } from '../form/action-form';
import type { FormAction } from '../form/form-state';
import { Section } from './section';

interface KeepingSectionProps {
  readonly keeping: KeepingShown;
  readonly save: FormAction;
}

/** How long samples stay, and what that takes. */
export function KeepingSection({ keeping, save }: KeepingSectionProps) {
  const { sampleDays, runs, sampledRuns, sampleBytes, databaseBytes, inAYearBytes } = keeping;
  return (
    <Section
      title="Keeping"
      hint="Figures stay for ever; the raw samples, which take most of the room, as long as you say."
    >
      <p>
        {runs} {runs === 1 ? 'run' : 'runs'}, {sampledRuns} with samples: {sizeWords(databaseBytes)} on disk,{' '}
        {sizeWords(sampleBytes)} of it samples.{' '}
        {inAYearBytes === null
          ? 'What a year will take is told once a day has been measured.'
          : `A year from now the samples will take ${sizeWords(inAYearBytes)}, if as much is measured as in the last 30 days.`}
      </p>
      <ActionForm form="keeping" action={save} label="Keeping" save="Save">
        <div className="mt-2 max-w-[20rem]">
          <TextField
            name="sampleDays"
            label="keep samples for"
            unit="days"
            hint="blank: for ever. A run without samples keeps its figures, and cannot be computed anew."
            value={sampleDays === null ? '' : String(sampleDays)}
          />
        </div>
      </ActionForm>
    </Section>
  );
}
