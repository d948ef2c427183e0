'use server';

import { revalidatePath } from 'next/cache';
import { act, actOnForm, COMMANDS, perform, type Command } from '@/app/commands';
import { refusalWords } from '@/app/form-action';
import { handedOrigin } from '@/app/visitor';
import type { PassphraseLink } from '@/services';
import type { FormState } from '@/ui/form/form-state';
import type { LinkState } from '@/ui/people/link-state';
import { checkedForm, typedInto } from '@/wire';

const HERE = '/people';

async function linkBy<Input>(command: Command<Input, PassphraseLink>, input: Input): Promise<LinkState> {
  const made = await perform(command, input);
  revalidatePath('/', 'layout');
  if (!made.ok) return { status: 'refused', why: refusalWords(made)! };
  const { name, path, untilMs } = made.value;
  return { status: 'made', name, address: `${await handedOrigin()}${path}`, untilMs };
}

/** Adds somebody; answers with the link that he is to be given. */
export async function addPersonAction(_: LinkState, form: FormData): Promise<LinkState> {
  const checked = checkedForm('technician', typedInto(form));
  if (!checked.ok) return { status: 'refused', why: Object.values(checked.errors).join(' ') };
  return linkBy(COMMANDS.addTechnician, { name: checked.values.name });
}

export async function renewLinkAction(technicianId: string): Promise<LinkState> {
  return linkBy(COMMANDS.renewPassphraseLink, { technicianId });
}

export async function removePersonAction(technicianId: string): Promise<string | null> {
  return act(COMMANDS.removeTechnician, { technicianId }, HERE);
}

export async function setKeeperAction(technicianId: string, keeper: boolean): Promise<string | null> {
  return act(COMMANDS.setKeeper, { technicianId, keeper }, HERE);
}

export async function endSignInAction(signInId: string): Promise<string | null> {
  return act(COMMANDS.endSignIn, { signInId }, HERE);
}

export async function endSignInsAction(technicianId: string): Promise<string | null> {
  return act(COMMANDS.endSignInsOf, { technicianId }, HERE);
}

export async function changePassphraseAction(_: FormState, form: FormData): Promise<FormState> {
  const state = await actOnForm('change-passphrase', form, COMMANDS.changePassphrase, ({ current, passphrase }) => ({
    ...{ current, passphrase },
  }));
  // No passphrase comes back into a page.
  return state.status === 'invalid' ? { ...state, typed: {} } : state;
}
