import { holdOf, holdWords, type LookAsked, type SnmpLogin } from '@/core';
import type { StoredLook } from '@/store';
import { done, failed, type ConsoleFaultCode, type LookOutcome, type Outcome } from '@/wire';
import { deviceOfCookie } from '../access/device-cookie';
import type { ConsoleContext } from '../console/console-context';
import { farLookOf, fillsLine, needsOfLook } from './far-look';
import { snmpLogin } from './snmp-logins';
import { turnState } from '../turns/turn-desk';

/** A machine that has said nothing of a look for so long will not any more, ms. */
const PATIENCE_MS = 5 * 60_000;
const DAY_MS = 24 * 3600_000;
/** Looks are kept so long. */
const KEEP_MS = 400 * DAY_MS;

/** Asks a machine that stands by to look at something. It answers when it is done. */
export async function askLook(
  context: ConsoleContext,
  askedBy: string,
  deviceId: string,
  asked: LookAsked,
  login?: SnmpLogin,
): Promise<Outcome<StoredLook, ConsoleFaultCode>> {
  const { agents, sites, looks } = context.store;
  const [agent, device] = [await agents.byDevice(deviceId), await sites.device(deviceId)];
  if (agent === null || device === null) return failed('agent-unknown');
  if (!context.standing.isPresent(device.id)) return failed('agent-away', { agent: device.name });
  if (!agent.can.includes(asked.what) || (fillsLine(asked) && !agent.can.includes('path-load')))
    return failed('agent-cannot', { agent: device.name });
  // One thing at a time: what it measures and what it looks at would disturb each other.
  return context.turnDesk.run(async () => {
    const state = await turnState(context);
    if (state.running.some((claim) => claim.deviceId === device.id))
      return failed('agent-busy', { agent: device.name });
    const needs = await needsOfLook(context, device, asked);
    const claim = { id: '', deviceId: device.id, deviceName: device.name, needs, together: null };
    const hold = needs.length === 0 ? null : holdOf(claim, { ...state, waiting: [claim] });
    if (hold !== null)
      return failed('line-taken', { why: holdWords(hold).replace(/^./, (letter) => letter.toUpperCase()) });
    const look: StoredLook = {
      ...{ id: context.newId(), siteId: device.siteId, deviceId: device.id, deviceName: device.name },
      ...{ asked, askedBy, askedAtMs: context.wallMs(), endedAtMs: null, outcome: null },
    };
    await looks.insert(look);
    // The login goes to the agent, and nowhere into the record.
    const used = asked.what === 'ports' ? await snmpLogin(context, device.siteId, asked.target, login) : null;
    const far = await farLookOf(context, device, asked);
    context.standing.send(device.id, {
      kind: 'look',
      lookId: look.id,
      asked,
      login: used,
      ...(far === null ? {} : { far }),
    });
    return done(look);
  });
}

/** A look is not wanted any more. What was found already stays. */
export async function stopLook(context: ConsoleContext, lookId: string): Promise<Outcome<null, 'look-unknown'>> {
  const look = await context.store.looks.byId(lookId);
  if (look === null) return failed('look-unknown');
  if (look.endedAtMs === null) context.standing.send(look.deviceId, { kind: 'look-withdrawn', lookId });
  return done(null);
}

/** What came of a look, from the machine that was asked. May be repeated: the first one counts. */
export async function takeLook(
  context: ConsoleContext,
  cookie: string | null,
  lookId: string,
  outcome: LookOutcome,
): Promise<Outcome<null, 'not-joined' | 'look-unknown'>> {
  const device = await deviceOfCookie(context, cookie);
  if (device === null) return failed('not-joined');
  const look = await context.store.looks.byId(lookId);
  // One that was asked of another machine is none of this one's.
  if (look === null || look.deviceId !== device.id) return failed('look-unknown');
  if (outcome.ok && outcome.found.what !== look.asked.what) return failed('look-unknown');
  await context.store.looks.end(lookId, outcome, context.wallMs());
  context.changes.tell('looks');
  return done(null);
}

/** Ends looks of which nothing came, and forgets those of long ago. */
export async function endLateLooks(context: ConsoleContext): Promise<void> {
  const { looks } = context.store;
  const nowMs = context.wallMs();
  for (const look of await looks.underWay()) {
    if (nowMs - look.askedAtMs < PATIENCE_MS) continue;
    const sentence = `Nothing came back from ${look.deviceName} in five minutes. See on the page of agents whether it stands by, then ask again.`;
    await looks.end(look.id, { ok: false, code: 'no-answer', sentence }, nowMs);
    context.changes.tell('looks');
  }
  await looks.removeBefore(nowMs - KEEP_MS);
}
