import { nominalRateFigure, USUAL_FULL_FROM } from '@/core';
import type { SetUp, SetUpLine } from '@/services';
import type { FormAction } from '../form/form-state';
import { ActionForm, ChoiceField, TextField } from '../form/action-form';
import { DayField } from '../form/day-field';
import { Button } from '../parts/button';
import { WallTime } from '../parts/wall-time';
import { RemoveLine } from './remove-line';
import { Section } from './section';

interface LineActions {
  readonly savePlan: FormAction;
  readonly removePlan: (siteId: string, lineId: string, planId: string) => Promise<void>;
  readonly save: FormAction;
  readonly use: (siteId: string, lineId: string) => Promise<void>;
  readonly remove: (siteId: string, lineId: string) => Promise<string | null>;
}

interface LinesSectionProps extends Pick<SetUp, 'lines' | 'switches'> {
  readonly siteId: string;
  readonly actions: LineActions;
}

const typed = (rateBps: number | null | undefined) =>
  rateBps === null || rateBps === undefined ? '' : nominalRateFigure(rateBps);

const DAY = new Intl.DateTimeFormat('en-GB', { day: '2-digit', month: 'short', year: 'numeric' });
const dayWords = (atMs: number) => DAY.format(new Date(atMs));

interface LineFormProps {
  readonly label: string;
  readonly siteId: string;
  readonly line: SetUpLine | null;
  readonly actions: LineActions;
}

/** What a contract promises, as fields. */
function PromisedFields({ plan }: { readonly plan: SetUpLine['plan'] }) {
  return (
    <>
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
    </>
  );
}

function LineForm({ label, siteId, line, actions }: LineFormProps) {
  const plan = line?.plan;
  return (
    <ActionForm
      form="line"
      action={actions.save}
      label={label}
      save="Save the line"
      beside={line !== null && !line.inUse && <RemoveLine siteId={siteId} line={line} remove={actions.remove} />}
    >
      <input type="hidden" name="siteId" value={siteId} />
      {line !== null && <input type="hidden" name="lineId" value={line.id} />}
      <input type="hidden" name="shown" value={line?.shown ?? ''} />
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <TextField name="lineName" label="name of the line" value={line?.name ?? ''} />
        <TextField name="provider" label="provider" value={line?.provider ?? ''} />
        <PromisedFields plan={plan ?? null} />
        <DayField
          name="validFrom"
          label={line === null ? 'in force from' : 'a new plan, in force from'}
          hint="a day such as 25.11.2026 or today; left blank, the plan in force is corrected"
        />
      </div>
    </ActionForm>
  );
}

interface PlansProps {
  readonly siteId: string;
  readonly line: SetUpLine;
  readonly actions: LineActions;
}

/** All plans of a line by their days: each can be corrected or removed, and the runs of its days are judged anew. */
function Plans({ siteId, line, actions }: PlansProps) {
  if (line.plans.length === 0) return null;
  return (
    <section className="mt-4 text-sm" aria-label={`Plans of ${line.name}`}>
      <h3 className="text-quiet">Plans by their days</h3>
      {line.rejudgeFromMs !== null && (
        <p role="status">The runs since {dayWords(line.rejudgeFromMs)} are being held against the corrected plan.</p>
      )}
      <ul>
        {line.plans.map((plan) => (
          <li key={plan.id} className="border-t border-hairline">
            <details>
              <summary className="flex flex-wrap items-baseline gap-x-4 py-1.5 hover:bg-sheet">
                <span>from {dayWords(plan.validFromMs)}</span>
                <span className="figure">
                  {nominalRateFigure(plan.downBps)}/{nominalRateFigure(plan.upBps)} Mb/s
                </span>
                {plan.correctedAtMs !== null && (
                  <span className="text-quiet">corrected {dayWords(plan.correctedAtMs)}</span>
                )}
                <span className="ml-auto underline decoration-hairline underline-offset-4">correct or remove</span>
              </summary>
              <div className="pb-4 pt-2">
                <ActionForm
                  form="plan"
                  action={actions.savePlan}
                  label={`Plan from ${dayWords(plan.validFromMs)}`}
                  save="Correct this plan"
                >
                  <input type="hidden" name="siteId" value={siteId} />
                  <input type="hidden" name="lineId" value={line.id} />
                  <input type="hidden" name="planId" value={plan.id} />
                  <p className="mb-3 text-quiet">The runs of its days are judged anew, and say that and when.</p>
                  <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
                    <PromisedFields plan={plan} />
                    <DayField
                      name="validFrom"
                      label="in force from"
                      hint={`a day such as 25.11.2026; left blank, ${dayWords(plan.validFromMs)} as before`}
                    />
                  </div>
                </ActionForm>
                <form action={actions.removePlan.bind(null, siteId, line.id, plan.id)} className="mt-3">
                  <Button type="submit" look="quiet">
                    Remove this plan
                  </Button>
                </form>
              </div>
            </details>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The lines of an office with what their contracts promise; one is in use at a time. */
export function LinesSection({ siteId, lines, switches, actions }: LinesSectionProps) {
  const [inUse, ...others] = lines;
  const nameOf = (lineId: string) => lines.find((line) => line.id === lineId)?.name ?? 'a line that was removed';
  return (
    <Section
      title="Line and plan"
      hint="What the contract promises. Every run that crosses the line is held against it; each run against the plan of its day."
    >
      <LineForm label="Line and plan" siteId={siteId} line={inUse ?? null} actions={actions} />
      {inUse !== undefined && <Plans siteId={siteId} line={inUse} actions={actions} />}
      {inUse !== undefined && (
        <ul className="mt-5 border-t border-hairline">
          {others.map((line) => (
            <li key={line.id} className="border-b border-hairline">
              <details>
                <summary className="flex flex-wrap items-baseline gap-x-4 py-2 hover:bg-sheet">
                  <span className="break-words">{line.name}</span>
                  <span className="text-sm text-quiet">
                    {line.plan === null
                      ? 'no plan'
                      : `${nominalRateFigure(line.plan.downBps)}/${nominalRateFigure(line.plan.upBps)} Mb/s`}
                    , not in use
                  </span>
                  <span className="ml-auto text-sm underline decoration-hairline underline-offset-4">edit</span>
                </summary>
                <div className="pb-5 pt-2">
                  <LineForm label={line.name} siteId={siteId} line={line} actions={actions} />
                  <Plans siteId={siteId} line={line} actions={actions} />
                </div>
              </details>
              <form action={actions.use.bind(null, siteId, line.id)} className="pb-2">
                <Button type="submit" className="text-sm">
                  Put {line.name} in use now
                </Button>
              </form>
            </li>
          ))}
          <li>
            <details>
              <summary className="py-2 underline decoration-hairline underline-offset-4 hover:decoration-ink">
                Add a second line, such as a backup
              </summary>
              <div className="pb-3 pt-2">
                <LineForm key={lines.length} label="New line" siteId={siteId} line={null} actions={actions} />
              </div>
            </details>
          </li>
        </ul>
      )}
      {switches.length > 1 && (
        <ol className="mt-4 space-y-1 text-sm text-quiet" aria-label="Which line was taken into use when">
          {switches.map((each, index) => (
            <li key={each.id}>
              {index === 0 ? 'now' : 'before'} {nameOf(each.lineId)}
              {each.atMs > 0 && (
                <>
                  , since <WallTime atMs={each.atMs} />
                </>
              )}
            </li>
          ))}
        </ol>
      )}
    </Section>
  );
}
