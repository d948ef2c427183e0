import { nominalRateFigure, USUAL_FULL_FROM } from '@/core';
import type { SetUp } from '@/services';
import type { FormAction } from '../form/form-state';
import { Section } from './section';
import { ChoiceField, ActionForm, TextField } from '../form/action-form';

interface LineSectionProps extends Pick<SetUp, 'line' | 'plan' | 'plans'> {
  /** See shownLine of the services. */
  readonly shown: string;
  readonly siteId: string;
  readonly save: FormAction;
}

const typed = (rateBps: number | null | undefined) =>
  rateBps === null || rateBps === undefined ? '' : nominalRateFigure(rateBps);

const DAY = new Intl.DateTimeFormat('en-GB', { day: '2-digit', month: 'short', year: 'numeric' });
const dayWords = (atMs: number) => DAY.format(new Date(atMs));

/** The line and what its contract promises, now and before. */
export function LineSection({ siteId, line, plan, plans, shown, save }: LineSectionProps) {
  return (
    <Section
      title="Line and plan"
      hint="What the contract promises. Every run that crosses the line is held against it; runs already made keep the plan of their day."
    >
      <ActionForm action={save} label="Line and plan" save="Save the line">
        <input type="hidden" name="siteId" value={siteId} />
        <input type="hidden" name="shown" value={shown} />
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
          <TextField
            name="validFrom"
            label="a new plan, in force from"
            value=""
            hint="a day such as 2026-11-24; left blank, the plan in force is corrected"
          />
        </div>
      </ActionForm>
      {plans.length > 1 && (
        <table className="mt-4 text-sm" aria-label="Plans of this line">
          <thead>
            <tr className="text-left text-quiet">
              <th className="pr-8 font-normal">in force from</th>
              <th className="pr-8 text-right font-normal">down, Mb/s</th>
              <th className="text-right font-normal">up, Mb/s</th>
            </tr>
          </thead>
          <tbody>
            {plans.map((each) => (
              <tr key={each.id} className="border-t border-hairline">
                <td className="py-1 pr-8">{dayWords(each.validFromMs)}</td>
                <td className="figure pr-8 text-right">{nominalRateFigure(each.downBps)}</td>
                <td className="figure text-right">{nominalRateFigure(each.upBps)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Section>
  );
}
