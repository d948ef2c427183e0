import { openSignIns } from '../access/sign-in';
import type { ConsoleContext } from '../console/console-context';

/** A browser in which somebody is signed in. */
export interface OpenSignIn {
  readonly id: string;
  readonly address: string | null;
  readonly browser: string | null;
  readonly createdAtMs: number;
  readonly seenAtMs: number;
}

/** Somebody who may sign in. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly keeper: boolean;
  /** Invited, and has not set a passphrase yet. */
  readonly invited: boolean;
  readonly addedAtMs: number;
  readonly signIns: readonly OpenSignIn[];
}

export async function peopleOf(context: ConsoleContext): Promise<Person[]> {
  const [technicians, signIns] = await Promise.all([context.store.access.technicians(), openSignIns(context)]);
  return technicians.map(({ id, name, keeper, hash, addedAtMs }) => ({
    ...{ id, name, keeper, invited: hash === '', addedAtMs },
    signIns: signIns
      .filter(({ technicianId }) => technicianId === id)
      .map((each) => ({
        ...{ id: each.id, address: each.address, browser: each.browser },
        ...{ createdAtMs: each.createdAtMs, seenAtMs: each.seenAtMs },
      })),
  }));
}
