import type { FormAction } from '../form/form-state';
import { ActionForm, TextField } from '../form/action-form';

/** The very first page: nothing is known yet but this. */
export function FirstOffice({ save }: { readonly save: FormAction }) {
  return (
    <section className="mx-auto mt-20 max-w-[28rem]">
      <h1 className="text-2xl font-semibold">Which office is this?</h1>
      <p className="mb-6 mt-2 text-quiet">
        Everything that is measured belongs to an office. Name it; the code for its devices comes next, the line and its
        plan whenever you have the contract at hand.
      </p>
      <ActionForm form="office" action={save} label="Name the office" save="Open the board">
        <TextField name="name" label="name of the office" value="" hint="for example: Larkspur Bindery, Mill Lane" />
      </ActionForm>
    </section>
  );
}
