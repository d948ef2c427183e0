import type { StoredComparison, StoredTray } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { opensByProof, sharedProof, shareOff, shareOn } from './shared-link';

/** What a comparison is made of. */
export interface ComparisonOrder {
  readonly siteId: string;
  readonly name: string;
  readonly trays: readonly StoredTray[];
}
type Known<Value> = Promise<Outcome<Value, 'comparison-unknown'>>;

/** Keeps trays to be held side by side. */
export async function makeComparison(
  context: ConsoleContext,
  byName: string,
  { siteId, name, trays }: ComparisonOrder,
): Promise<Outcome<{ readonly id: string }, 'site-missing'>> {
  const { store } = context;
  if ((await store.sites.byId(siteId)) === null) return failed('site-missing');
  const id = context.newId();
  const madeAtMs = context.wallMs();
  await store.comparisons.save({ ...{ id, siteId, name, byName, madeAtMs, shareNumber: null }, trays: [...trays] });
  return done({ id });
}

async function change(
  { store }: ConsoleContext,
  id: string,
  changed: (before: StoredComparison) => Partial<StoredComparison>,
): Known<StoredComparison> {
  const before = await store.comparisons.byId(id);
  if (before === null) return failed('comparison-unknown');
  const after = { ...before, ...changed(before) };
  await store.comparisons.save(after);
  return done(after);
}

/** Names it, or fills its trays anew. */
export function changeComparison(
  context: ConsoleContext,
  { id, name, trays }: { readonly id: string } & Omit<ComparisonOrder, 'siteId'>,
): Known<StoredComparison> {
  return change(context, id, () => ({ name, trays: [...trays] }));
}

export async function removeComparison(context: ConsoleContext, id: string): Known<null> {
  if ((await context.store.comparisons.byId(id)) === null) return failed('comparison-unknown');
  await context.store.comparisons.remove(id);
  return done(null);
}

const subjectOf = (id: string) => `side ${id}`;

/** Path of the link by which it is shared; null while it is not. */
export function sharedComparisonPath(
  context: Pick<ConsoleContext, 'signingKey'>,
  { id, shareNumber }: Pick<StoredComparison, 'id' | 'shareNumber'>,
): string | null {
  const proof = sharedProof(context, subjectOf(id), shareNumber);
  return proof === null ? null : `/s/side/${id}/${proof}`;
}

/** Whether a link opens it now. */
export function opensSharedComparison(
  context: Pick<ConsoleContext, 'signingKey'>,
  { id, shareNumber }: Pick<StoredComparison, 'id' | 'shareNumber'>,
  proof: string,
): boolean {
  return opensByProof(context, subjectOf(id), shareNumber, proof);
}

/** Makes a link by which anybody may read it, or ends that. Answers with its path; null: none. */
export async function shareComparison(
  context: ConsoleContext,
  { id, on }: { readonly id: string; readonly on: boolean },
): Known<string | null> {
  const changed = await change(context, id, ({ shareNumber }) => ({
    shareNumber: on ? shareOn(shareNumber) : shareOff(shareNumber),
  }));
  return changed.ok ? done(sharedComparisonPath(context, changed.value)) : changed;
}
