import { nominalRateFigure, USUAL_FULL_FROM } from '@/core';
import type { SetUp } from '@/services';
import type { FormAction } from '../form/form-state';
import { Section } from './section';
import { ChoiceField, ActionForm, TextField } from '../form/action-form';

interface LineSectionProps extends Pick<SetUp, 'line' | 'plan'> {
  readonly siteId: string;
  readonly save: FormAction;
}

const typed = (rateBps: number | null | undefined) =>
  rateBps === null || rateBps === undefined ? '' : nominalRateFigure(rateBps);

/** The line and what its contract promises. */
export function LineSection({ siteId, line, plan, save }: LineSectionProps) {
  return (
    <Section
      title="Line and plan"
      hint="What the contract promises. Every run that crosses the line is held against it; runs already made keep the plan of their day."
    >
      <ActionForm action={save} label="Line and plan" save="Save the line">
        <input type="hidden" name="siteId" value={siteId} />
        <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
          <TextField name="lineName" label="name of the line" value={line?.name ?? ''} />
          <TextField name="provider" label="provider" value={line?.provider ?? ''} />
          <TextField name="downMbps" label="advertised, down" unit="Mb/s" value={typed(plan?.downBps)} />
          <TextField name="upMbps" label="advertised, up" unit="Mb/s" value={typed(plan?.upBps)} />
          <TextField
            name="leastDownMbps"
            label="least, down, if the contract names it"
            unit="Mb/s"
            value={typed(plan?.leastDownBps)}
          />
          <TextField
            name="leastUpMbps"
            label="least, up, if the contract names it"
            unit="Mb/s"
            value={typed(plan?.leastUpBps)}
          />
          <ChoiceField
            name="basis"
            label="the contract counts"
            value={plan?.basis ?? 'payload'}
            options={[
              ['payload', 'payload: what a download shows'],
              ['line', 'line rate: headers included'],
            ]}
          />
          <TextField
            name="fullFromPercent"
            label="full from"
            unit="% of the yardstick"
            value={String(Math.round((plan?.fullFrom ?? USUAL_FULL_FROM) * 100))}
          />
        </div>
      </ActionForm>
    </Section>
  );
}
