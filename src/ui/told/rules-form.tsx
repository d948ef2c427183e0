import type { AlarmRules } from '@/core';
import { ActionForm, TextField, TickField } from '../form/action-form';
import type { FormAction } from '../form/form-state';

const text = (value: number | null) => (value === null ? '' : String(value));

/** What an office wants to be told of. A blank figure: not of that. */
export function RulesForm({ rules, save }: { readonly rules: AlarmRules; readonly save: FormAction }) {
  return (
    <ActionForm form="alarm-rules" action={save} label="Of what" save="Save">
      <p className="mb-2 text-sm text-quiet">A blank figure: not of that.</p>
      <div className="grid max-w-[62rem] gap-x-8 gap-y-2 sm:grid-cols-2">
        <TextField
          name="planNotMet"
          label="the plan was not met in so many occasions in a row"
          value={text(rules.planNotMet)}
          hint="three in a row come by chance once in ten years, where two in a hundred miss it"
        />
        <TextField
          name="addedDelayMs"
          label="load adds more delay than"
          unit="ms"
          value={text(rules.addedDelayMs)}
          hint="the middle one of the last three occasions"
        />
        <TextField
          name="agentSilentMinutes"
          label="an agent is silent for"
          unit="minutes"
          value={text(rules.agentSilentMinutes)}
        />
        <TextField
          name="outageSeconds"
          label="something that is watched is silent for"
          unit="seconds"
          value={text(rules.outageSeconds)}
          hint="line, gateway or a far end, with whose fault it was"
        />
        <TextField
          name="budgetPercent"
          label="of a line’s data volume is used"
          unit="%"
          value={text(rules.budgetPercent)}
        />
        <TickField name="findings" label="something stands out that did not before" value={rules.findings} />
        <TickField
          name="levelShifts"
          label="a line’s rates have another level since lately"
          value={rules.levelShifts}
        />
      </div>
    </ActionForm>
  );
}
