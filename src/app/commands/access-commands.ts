import {
  addTechnician,
  backUpNow,
  keepingShown,
  keepSamples,
  changePassphrase,
  endSignIns,
  endSignInsOf,
  makeApiToken,
  peopleOf,
  removeTechnician,
  renewPassphraseLink,
  revokeApiToken,
  setKeeper,
  type PassphraseLink,
} from '@/services';
import { done, failed, type TokenForm } from '@/wire';
import type { Call, Command } from './command';
import { personLook, tokenLook } from './facts';

interface OfPerson {
  readonly technicianId: string;
}

/** Somebody's own sign-ins are his to end; those of others are for who keeps the console. */
async function mayEnd({ context, actor }: Pick<Call<unknown>, 'context' | 'actor'>, technicianId: string | null) {
  const owner = (await peopleOf(context)).find(({ id }) => id === technicianId);
  if (owner === undefined) return failed('technician-unknown');
  return owner.id === actor.person?.id || actor.person?.keeper === true ? done(owner) : failed('keeper-only');
}

export const ACCESS_COMMANDS = {
  addTechnician: {
    ...{ scope: 'keeper', changes: ['people'], audited: 'person-added' },
    look: ({ input }, link) => Promise.resolve(link === null ? null : { subject: input.name, facts: null }),
    run: ({ context, input }) => addTechnician(context, input.name),
  } satisfies Command<{ name: string }, PassphraseLink>,

  renewPassphraseLink: {
    ...{ scope: 'keeper', changes: ['people'], audited: 'person-linked' },
    look: ({ context, input }) => personLook(context, input.technicianId),
    run: ({ context, input }) => renewPassphraseLink(context, input.technicianId),
  } satisfies Command<OfPerson, PassphraseLink>,

  removeTechnician: {
    ...{ scope: 'keeper', changes: ['people'], audited: 'person-removed' },
    look: ({ context, input }) => personLook(context, input.technicianId),
    run: ({ context, input }) => removeTechnician(context, input.technicianId),
  } satisfies Command<OfPerson, null>,

  setKeeper: {
    ...{ scope: 'keeper', changes: ['people'], audited: 'keeper-set' },
    look: ({ context, input }) => personLook(context, input.technicianId),
    run: ({ context, input }) => setKeeper(context, input.technicianId, input.keeper),
  } satisfies Command<OfPerson & { keeper: boolean }, null>,

  changePassphrase: {
    ...{ scope: 'person', changes: ['people'], audited: 'passphrase-changed' },
    look: ({ actor }) => Promise.resolve({ subject: actor.name, facts: null }),
    run: ({ context, actor: { person, address }, input }) =>
      changePassphrase(context, { id: person!.id, signInId: person!.signInId, address }, input),
  } satisfies Command<{ current: string; passphrase: string }, null>,

  endSignIn: {
    ...{ scope: 'person', changes: ['people'], audited: 'sign-in-ended' },
    look: async ({ context, input }) => {
      const owner = (await peopleOf(context)).find(({ signIns }) => signIns.some(({ id }) => id === input.signInId));
      return owner === undefined ? null : { subject: owner.name, facts: null };
    },
    run: async (call) => {
      const signIn = await call.context.store.access.signIn(call.input.signInId);
      const allowed = await mayEnd(call, signIn?.technicianId ?? null);
      if (!allowed.ok) return allowed;
      await endSignIns(call.context, [call.input.signInId]);
      return done(null);
    },
  } satisfies Command<{ signInId: string }, null>,

  /** Everywhere but here, where it is one's own. */
  endSignInsOf: {
    ...{ scope: 'person', changes: ['people'], audited: 'sign-in-ended' },
    look: async ({ context, input }, ended) => {
      const person = await personLook(context, input.technicianId);
      return person === null || ended === null ? person : { ...person, facts: { ended } };
    },
    run: async (call) => {
      const { context, actor, input } = call;
      const allowed = await mayEnd(call, input.technicianId);
      if (!allowed.ok) return allowed;
      return done(await endSignInsOf(context, input.technicianId, actor.person?.signInId ?? null));
    },
  } satisfies Command<OfPerson, number>,

  makeToken: {
    ...{ scope: 'person', changes: ['people'], audited: 'token-made' },
    look: ({ context, input }) => tokenLook(context, { name: input.name }),
    run: ({ context, actor, input }) => makeApiToken(context, input, actor.name),
  } satisfies Command<TokenForm, string>,

  revokeToken: {
    ...{ scope: 'person', changes: ['people'], audited: 'token-revoked' },
    look: ({ context, input }) => tokenLook(context, { id: input.tokenId }),
    run: async ({ context, input }) => done(await revokeApiToken(context, input.tokenId)),
  } satisfies Command<{ tokenId: string }, void>,

  keepSamples: {
    ...{ scope: 'everything', changes: [], audited: 'keeping-changed' },
    look: async ({ context }) => ({ subject: 'samples', facts: { days: (await keepingShown(context)).sampleDays } }),
    run: ({ context, input }) => keepSamples(context, input),
  } satisfies Command<{ readonly days: number | null }, null>,

  backUpNow: {
    ...{ scope: 'everything', changes: ['copies'], audited: 'copy-made' },
    look: (_, made) => Promise.resolve(made === null ? null : { subject: made.folder, facts: { runs: made.runs } }),
    run: ({ context }) => backUpNow(context),
  } satisfies Command<null, { folder: string; runs: number }>,
};
