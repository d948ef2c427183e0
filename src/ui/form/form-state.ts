/** How a form of the set-up stands after it was sent. `typed`: field name → what the person wrote. */
export type FormState =
  | { readonly status: 'untouched' }
  | { readonly status: 'saved'; readonly at: number }
  | {
      readonly status: 'invalid';
      readonly typed: Readonly<Record<string, string>>;
      readonly errors: Readonly<Record<string, string>>;
      readonly refusal: string | null;
    };

export const UNTOUCHED: FormState = { status: 'untouched' };

/** A server action behind a form. */
export type FormAction = (state: FormState, form: FormData) => Promise<FormState>;

/** The server actions behind a list of things that can be edited and removed. */
export interface EditActions {
  readonly save: FormAction;
  readonly remove: (id: string) => Promise<void>;
}
