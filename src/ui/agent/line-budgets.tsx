import { sizeWords } from '@/core';
import type { LineBudget } from '@/services';
import { ActionForm, TextField } from '../form/action-form';
import type { FormAction } from '../form/form-state';

const WARNS_FROM = 0.8;

function Standing({ movedBytes, budgetBytes }: LineBudget) {
  if (budgetBytes === null) return <>{sizeWords(movedBytes)} moved this month; no limit.</>;
  const share = movedBytes / budgetBytes;
  return (
    <>
      {sizeWords(movedBytes)} of {sizeWords(budgetBytes)} moved this month
      {share >= 1 ? ': scheduled runs wait for the next one.' : share >= WARNS_FROM ? ', nearly all of it.' : '.'}
      <span aria-hidden className="mt-0.5 block h-2 max-w-60 border border-ink">
        <i
          className={`block h-full ${share >= WARNS_FROM ? 'bg-starved' : 'bg-down'}`}
          style={{ width: `${Math.min(100, 100 * share)}%` }}
        />
      </span>
    </>
  );
}

interface LineBudgetsProps {
  readonly budgets: readonly LineBudget[];
  readonly set: (lineId: string) => FormAction;
}

/** What runs have moved over each line in this month, and what scheduled ones may. */
export function LineBudgets({ budgets, set }: LineBudgetsProps) {
  return (
    <ul>
      {budgets.map((budget) => (
        <li key={budget.line.id} className="grid gap-x-8 border-t border-hairline py-2 md:grid-cols-[1fr_26rem]">
          <div className="min-w-0 text-sm">
            <span className="block break-words text-base font-medium">{budget.line.name}</span>
            <Standing {...budget} />
          </div>
          <ActionForm
            form="budget"
            action={set(budget.line.id)}
            label={`Data volume of ${budget.line.name}`}
            save="Set"
          >
            <TextField
              name="gigabytes"
              label="at most a month"
              unit="GB"
              value={budget.budgetBytes === null ? '' : String(budget.budgetBytes / 1e9)}
              hint="nothing: as much as they like"
            />
          </ActionForm>
        </li>
      ))}
    </ul>
  );
}
