import { guarded } from '@/app/guarded';
import { currentRole } from '@/app/role';
import { visitorWith } from '@/app/visitor';
import { theConsole } from '@/services';
import { failed, type ConsoleFaultCode, type Outcome } from '@/wire';
import { carryOut } from './carry-out';
import type { Actor, Command } from './command';

/** Whoever sent this request, where he may do things here at all. */
export async function actorHere(): Promise<Outcome<Actor, 'not-signed-in'>> {
  const [role, { address }] = await Promise.all([currentRole(), visitorWith(null)]);
  return role.kind === 'technician' ? { ok: true, value: { ...role, address } } : failed('not-signed-in');
}

/** Carries a command out for whoever sent this request. */
export async function perform<Input, Value>(
  command: Command<Input, Value>,
  input: Input,
): Promise<Outcome<Value, ConsoleFaultCode>> {
  return guarded(async () => {
    const actor = await actorHere();
    return actor.ok ? carryOut(command, { context: theConsole(), actor: actor.value, input }) : actor;
  });
}
