import { noteAudit, scopeAllows } from '@/services';
import { failed, type ConsoleFaultCode, type Outcome } from '@/wire';
import type { Actor, Call, Command } from './command';

type Refusal = 'not-signed-in' | 'token-scope' | 'keeper-only';

/** Whether somebody may do what needs this. */
export function mayDo(
  { name, scope, person }: Pick<Actor, 'name' | 'scope' | 'person'>,
  wanted: Command<unknown, unknown>['scope'],
): Outcome<null, Refusal> {
  const allowed = { ok: true, value: null } as const;
  if (wanted === 'person') return person === null ? failed('not-signed-in') : allowed;
  if (wanted === 'keeper') {
    if (person === null) return failed('not-signed-in');
    return person.keeper ? allowed : failed('keeper-only');
  }
  return scopeAllows(scope, wanted) ? allowed : failed('token-scope', { name, scope, wanted });
}

/** Carries a command out for somebody: may he, what was before, the thing itself, what is after, and who should know. */
export async function carryOut<Input, Value>(
  command: Command<Input, Value>,
  call: Call<Input>,
): Promise<Outcome<Value, ConsoleFaultCode>> {
  const { context, actor } = call;
  const allowed = mayDo(actor, command.scope);
  if (!allowed.ok) return allowed;
  const before = (await command.look?.(call, null)) ?? null;
  const outcome = await command.run(call);
  if (!outcome.ok) return outcome;
  const after = (await command.look?.(call, outcome.value)) ?? null;
  // What was not there, before or after, was not changed either.
  if (command.look !== undefined && before === null && after === null) return outcome;
  await noteAudit(
    context,
    { name: actor.name, kind: actor.person === null ? 'script' : 'technician', address: actor.address },
    {
      what: command.audited,
      siteId: after?.siteId ?? before?.siteId ?? null,
      subject: after?.subject ?? before?.subject ?? '',
      before: before?.facts ?? null,
      after: after?.facts ?? null,
    },
  );
  context.changes.tell(...command.changes);
  return outcome;
}
