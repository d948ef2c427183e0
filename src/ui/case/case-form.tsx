'use client';

import type { CaseContract, CaseRule } from '@/core';
import { ActionForm, ChoiceField, NoteField, TextField } from '../form/action-form';
import { DayField } from '../form/day-field';
import type { FormAction } from '../form/form-state';

/** What the form begins with. */
export interface CaseDraft {
  readonly title: string;
  readonly notes: string;
  readonly lineId: string;
  readonly contract: CaseContract;
  readonly rule: CaseRule;
}

interface CaseFormProps {
  readonly draft: CaseDraft;
  readonly lines: readonly { readonly id: string; readonly name: string }[];
  /** A case that is there keeps its line. */
  readonly isNew: boolean;
  readonly siteId: string;
  readonly action: FormAction;
}

const typed = (bps: number | null) => (bps === null ? '' : String(Number((bps / 1e6).toFixed(3))));
const RATES = [
  ['advertised', 'Advertised', 'advertisedBps'],
  ['usual', 'Usual', 'usualBps'],
  ['least', 'Least', 'leastBps'],
] as const;

/** What the contract names, and the rule by which the line is held to it. */
export function CaseForm({ draft, lines, isNew, siteId, action }: CaseFormProps) {
  const { contract, rule } = draft;
  return (
    <ActionForm
      form="case"
      action={action}
      label={isNew ? 'New case' : 'Case'}
      save={isNew ? 'Open the case' : 'Save the case'}
    >
      <input type="hidden" name="siteId" value={siteId} />
      <div className="grid max-w-[60rem] gap-x-6 gap-y-2 sm:grid-cols-3">
        <TextField name="title" label="title" value={draft.title} />
        {isNew ? (
          <ChoiceField
            name="lineId"
            label="line"
            value={draft.lineId}
            options={lines.map(({ id, name }) => [id, name])}
          />
        ) : (
          <input type="hidden" name="lineId" value={draft.lineId} />
        )}
        <DayField
          name="openedFrom"
          label="runs count from"
          hint={isNew ? 'a day; blank: from now on' : 'a day; blank: as before'}
        />
      </div>
      <h3 className="mt-4 font-semibold">What the contract names</h3>
      <div className="grid max-w-[60rem] gap-x-6 gap-y-2 sm:grid-cols-3">
        {(['down', 'up'] as const).flatMap((direction) =>
          RATES.map(([key, words, rate]) => (
            <TextField
              key={`${direction} ${key}`}
              name={`${direction}${words}`}
              label={`${key} ${direction}`}
              unit="Mb/s"
              value={typed(contract[direction][rate])}
            />
          )),
        )}
      </div>
      <p className="mt-1 text-sm text-quiet">
        Payload above TCP, as it is measured. What the contract does not name stays blank, and is held against nothing.
      </p>
      <h3 className="mt-4 font-semibold">The rule</h3>
      <div className="grid max-w-[60rem] gap-x-6 gap-y-2 sm:grid-cols-4">
        <TextField name="runs" label="runs, at least" unit="runs" value={String(rule.runs)} />
        <TextField name="days" label="on days, at least" unit="days" value={String(rule.days)} />
        <TextField name="perDay" label="a day, at least" unit="runs" value={String(rule.perDay)} />
        <TextField name="apartMinutes" label="apart, at least" unit="minutes" value={String(rule.apartMinutes)} />
        <TextField
          name="usualMissedPercent"
          label="usual: missed in"
          unit="% of runs"
          value={String(Math.round(100 * rule.usualMissedShare))}
        />
        <TextField name="leastDays" label="least: undercut on" unit="days" value={String(rule.leastDays)} />
        <TextField
          name="advertisedPercent"
          label="advertised: to be reached"
          unit="% of it"
          value={String(Math.round(100 * rule.advertisedShare))}
        />
        <TextField name="advertisedDays" label="never reached on" unit="days" value={String(rule.advertisedDays)} />
      </div>
      <div className="mt-3 max-w-[60rem]">
        <NoteField name="notes" label="what the reader should know" value={draft.notes} />
      </div>
    </ActionForm>
  );
}
