import { ActionForm, TextField } from '../form/action-form';
import type { FormAction } from '../form/form-state';

/** A further office: its name is enough to begin with. */
export function AddOffice({ add }: { readonly add: FormAction }) {
  return (
    <details className="border-t-[1.5px] border-ink py-4">
      <summary className="w-fit underline decoration-hairline underline-offset-4 hover:decoration-ink">
        Add an office
      </summary>
      <div className="max-w-[28rem] pt-3">
        <ActionForm form="office" action={add} label="New office" save="Add the office">
          <TextField name="name" label="name" value="" />
        </ActionForm>
      </div>
    </details>
  );
}
