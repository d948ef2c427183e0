import { isOfDevice, type CheckCode } from '@/core';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { findingsAreDue, ruledOutIn } from '../diagnosis';

/** A person has looked: this is not the reason. Or takes that back. It counts as evidence for a day. */
export async function ruleOut(
  context: ConsoleContext,
  byName: string,
  { huntId, check, out }: { readonly huntId: string; readonly check: CheckCode; readonly out: boolean },
): Promise<Outcome<null, 'hunt-unknown' | 'hunt-over' | 'check-needs-device'>> {
  const { findings } = context.store;
  const hunt = await findings.hunt(huntId);
  if (hunt === null) return failed('hunt-unknown');
  if (hunt.state !== 'open') return failed('hunt-over');
  // Of no device it would speak of all of them, or of none.
  if (isOfDevice(check) && hunt.focus.deviceId === undefined) return failed('check-needs-device');
  const atMs = context.wallMs();
  if (ruledOutIn(await findings.stepsOf(huntId), atMs).has(check) === out) return done(null);
  await findings.addStep({
    ...{ id: context.newId(), huntId, atMs, byName, facts: { check } },
    kind: out ? 'ruled-out' : 'not-ruled-out',
  });
  findingsAreDue(context, hunt.siteId);
  return done(null);
}
