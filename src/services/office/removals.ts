import { mergedInto } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** So long a removal can be undone, ms. */
const UNDO_MS = 24 * 3600_000;

/** Something that was removed lately. */
export interface Removed {
  readonly id: string;
  readonly kind: 'device' | 'peer' | 'line' | 'runs';
  readonly name: string;
  /** Of which other it was made a part; null: it was removed. */
  readonly into: string | null;
  readonly removedAtMs: number;
}

/** Removes a device; its runs stay in the ledger under its name. Can be undone for a day. */
export async function removeDevice(context: ConsoleContext, deviceId: string): Promise<void> {
  const { sites, removals } = context.store;
  const device = await sites.device(deviceId);
  if (device === null) return;
  const { id, siteId, name } = device;
  await removals.remove({ id, siteId, kind: 'device', name, removed: device, removedAtMs: context.wallMs() });
  context.standing.dismiss(deviceId, 'removed');
}

/** Removes a peer; runs that were made against it keep its name. Can be undone for a day. */
export async function removePeer(context: ConsoleContext, peerId: string): Promise<void> {
  const { sites, removals } = context.store;
  const peer = await sites.peer(peerId);
  if (peer === null) return;
  const { id, siteId, name } = peer;
  await removals.remove({ id, siteId, kind: 'peer', name, removed: peer, removedAtMs: context.wallMs() });
}

/** What can be put back, the newest first. */
export async function removedLately(context: ConsoleContext, siteId: string): Promise<Removed[]> {
  const { removals, sites } = context.store;
  const sinceMs = context.wallMs() - UNDO_MS;
  const names = new Map((await sites.devicesOf(siteId)).map(({ id, name }) => [id, name]));
  return (await removals.since(siteId, sinceMs)).map(({ id, kind, name, removed, removedAtMs }) => {
    const intoId = mergedInto(removed);
    return { ...{ id, kind, name, removedAtMs }, into: intoId === null ? null : (names.get(intoId) ?? 'another') };
  });
}

/** Deletes what cannot be put back any more. */
export async function forgetOldRemovals(context: ConsoleContext): Promise<void> {
  await context.store.removals.forgetBefore(context.wallMs() - UNDO_MS);
}

/** Puts back what was removed, as it was. Refused when another one has taken its name. */
export async function undoRemoval(
  context: ConsoleContext,
  removalId: string,
): Promise<Outcome<null, Extract<ConsoleFaultCode, 'removal-over' | 'name-taken'>>> {
  const { sites, removals } = context.store;
  const removal = await removals.byId(removalId);
  if (removal === null || removal.removedAtMs < context.wallMs() - UNDO_MS) return failed('removal-over');
  const { kind, siteId, name } = removal;
  const siblings: Readonly<Record<Removed['kind'], () => Promise<readonly { readonly name: string }[]>>> = {
    device: () => sites.devicesOf(siteId),
    peer: () => sites.peersOf(siteId),
    line: () => sites.linesOf(siteId),
    // Runs have no names that others could take.
    runs: () => Promise.resolve([]),
  };
  const others = await siblings[kind]();
  if (others.some((other) => other.name.toLocaleLowerCase() === name.toLocaleLowerCase()))
    return failed('name-taken', { what: kind, name });
  await removals.putBack(removal);
  return done(null);
}
