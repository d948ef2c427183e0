import { ActionForm, NoteField } from '../form/action-form';
import type { FormAction } from '../form/form-state';

/** What the technician writes beside a run. */
export function RunNotes({ notes, save }: { readonly notes: string; readonly save: FormAction }) {
  return (
    <section aria-label="Notes" className="print:hidden">
      <h2 className="mb-2 font-semibold">Notes</h2>
      <ActionForm form="run-notes" action={save} label="Notes" save="Save the notes">
        <NoteField name="notes" label="what should be remembered about this run" value={notes} />
      </ActionForm>
    </section>
  );
}
