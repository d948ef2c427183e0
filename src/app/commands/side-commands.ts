import {
  changeComparison,
  goOnWithAlternation,
  sideIsReady,
  startAlternation,
  stopAlternation,
  type StoredAlternation,
  makeComparison,
  removeComparison,
  shareComparison,
  type ComparisonOrder,
  type ConsoleContext,
} from '@/services';
import type { AlternationForm } from '@/wire';
import type { Command, Look } from './command';

async function comparisonLook({ store }: ConsoleContext, id: string): Promise<Look | null> {
  const comparison = await store.comparisons.byId(id);
  if (comparison === null) return null;
  const { siteId, name, trays, shareNumber } = comparison;
  const facts = { trays: trays.map((tray) => tray.name || tray.query).join(' | '), shared: (shareNumber ?? 0) > 0 };
  return { siteId, subject: name === '' ? 'without a name' : name, facts };
}

async function alternationLook({ store }: ConsoleContext, id: string): Promise<Look | null> {
  const stored = await store.alternations.byId(id);
  if (stored === null) return null;
  const { siteId, sides, times, state, runs } = stored;
  const facts = { times, state, made: runs[0].length + runs[1].length };
  return { siteId, subject: sides.map(({ name }) => name).join(' | '), facts };
}

export const SIDE_COMMANDS = {
  startAlternation: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'alternation-started' },
    look: ({ context }, made) => (made === null ? Promise.resolve(null) : alternationLook(context, made.id)),
    run: ({ context, actor, input }) => startAlternation(context, actor.name, input),
  } satisfies Command<{ readonly siteId: string; readonly form: AlternationForm }, StoredAlternation>,

  sideIsReady: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'alternation-moved' },
    look: ({ context, input }) => alternationLook(context, input.id),
    run: ({ context, input }) => sideIsReady(context, input.id),
  } satisfies Command<{ readonly id: string }, StoredAlternation>,

  goOnWithAlternation: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'alternation-moved' },
    look: ({ context, input }) => alternationLook(context, input.id),
    run: ({ context, input }) => goOnWithAlternation(context, input.id),
  } satisfies Command<{ readonly id: string }, StoredAlternation>,

  stopAlternation: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'alternation-stopped' },
    look: ({ context, input }) => alternationLook(context, input.id),
    run: ({ context, input }) => stopAlternation(context, input.id),
  } satisfies Command<{ readonly id: string }, StoredAlternation>,

  makeComparison: {
    ...{ scope: 'everything', changes: [], audited: 'comparison-made' },
    look: ({ context }, made) => (made === null ? Promise.resolve(null) : comparisonLook(context, made.id)),
    run: ({ context, actor, input }) => makeComparison(context, actor.name, input),
  } satisfies Command<ComparisonOrder, { readonly id: string }>,

  changeComparison: {
    ...{ scope: 'everything', changes: [], audited: 'comparison-changed' },
    look: ({ context, input }) => comparisonLook(context, input.id),
    run: ({ context, input }) => changeComparison(context, input),
  } satisfies Command<{ readonly id: string } & Omit<ComparisonOrder, 'siteId'>, unknown>,

  removeComparison: {
    ...{ scope: 'everything', changes: [], audited: 'comparison-removed' },
    look: ({ context, input }) => comparisonLook(context, input.id),
    run: ({ context, input }) => removeComparison(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,

  shareComparison: {
    ...{ scope: 'everything', changes: [], audited: 'comparison-shared' },
    look: ({ context, input }) => comparisonLook(context, input.id),
    run: ({ context, input }) => shareComparison(context, { id: input.id, on: true }),
  } satisfies Command<{ readonly id: string }, string | null>,

  unshareComparison: {
    ...{ scope: 'everything', changes: [], audited: 'comparison-unshared' },
    look: ({ context, input }) => comparisonLook(context, input.id),
    run: ({ context, input }) => shareComparison(context, { id: input.id, on: false }),
  } satisfies Command<{ readonly id: string }, string | null>,
};
