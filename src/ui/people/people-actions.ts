import type { FormAction } from '../form/form-state';
import type { LinkState } from './link-state';

/** What can be done on the page of people; text: what stands in the way. */
export interface PeopleActions {
  readonly add: (state: LinkState, form: FormData) => Promise<LinkState>;
  readonly renewLink: (technicianId: string) => Promise<LinkState>;
  readonly remove: (technicianId: string) => Promise<string | null>;
  readonly setKeeper: (technicianId: string, keeper: boolean) => Promise<string | null>;
  readonly endSignIn: (signInId: string) => Promise<string | null>;
  readonly endSignIns: (technicianId: string) => Promise<string | null>;
  readonly changePassphrase: FormAction;
}
