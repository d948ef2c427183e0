import { rateWords } from '@/core';
import type { HuntState, StoredHunt } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { findingsAreDue } from '../diagnosis';

async function openOne(
  context: ConsoleContext,
  huntId: string,
): Promise<Outcome<StoredHunt, 'hunt-unknown' | 'hunt-over'>> {
  const hunt = await context.store.findings.hunt(huntId);
  if (hunt === null) return failed('hunt-unknown');
  return hunt.state === 'open' ? done(hunt) : failed('hunt-over');
}

/** Writes a line into the story of a hunt. */
export async function noteInHunt(
  context: ConsoleContext,
  byName: string,
  huntId: string,
  text: string,
): Promise<Outcome<null, 'hunt-unknown' | 'hunt-over'>> {
  const hunt = await openOne(context, huntId);
  if (!hunt.ok) return hunt;
  await context.store.findings.addStep({
    ...{ id: context.newId(), huntId, atMs: context.wallMs(), byName, kind: 'note', facts: { text } },
  });
  return done(null);
}

/** A queue was set to a rate: what is measured from now on is its trial. */
export async function noteQueueSet(
  context: ConsoleContext,
  byName: string,
  huntId: string,
  bps: number,
): Promise<Outcome<StoredHunt, 'hunt-unknown' | 'hunt-over'>> {
  const hunt = await openOne(context, huntId);
  if (!hunt.ok) return hunt;
  const { sites, findings } = context.store;
  const { siteId } = hunt.value;
  const atMs = context.wallMs();
  await findings.addStep({ ...{ id: context.newId(), huntId, atMs, byName, kind: 'queue-set', facts: { bps } } });
  // From now on the router is another one: no run joins a set of before, and what was measured before is history.
  await findings.saveSwap({
    ...{ id: context.newId(), siteId, huntId, atMs, byName, what: 'queue-managed', segmentId: 'router' },
    ...{ deviceId: null, note: rateWords(bps), undoneAtMs: null },
  });
  findingsAreDue(context, siteId);
  const [site, line] = await Promise.all([sites.byId(siteId), sites.lineInUse(siteId, atMs)]);
  if (site?.demo === true && line !== null) await context.practiceHands?.queueSet(line.name, bps);
  return hunt;
}

/** Ends a hunt: found, mended, or given up with what is still open. Its finding goes with it. */
export async function endHunt(
  context: ConsoleContext,
  byName: string,
  {
    huntId,
    state,
    note,
  }: { readonly huntId: string; readonly state: Exclude<HuntState, 'open'>; readonly note: string },
): Promise<Outcome<StoredHunt, 'hunt-unknown' | 'hunt-over'>> {
  const hunt = await openOne(context, huntId);
  if (!hunt.ok) return hunt;
  const { findings } = context.store;
  const nowMs = context.wallMs();
  const ended: StoredHunt = { ...hunt.value, state, closedAtMs: nowMs, outcome: { note, byName } };
  await findings.saveHunt(ended);
  const { findingKey } = hunt.value.focus;
  const finding = (await findings.findingsOf(ended.siteId)).find((each) => each.findingKey === findingKey);
  // With the swap that mended it, what was found may be gone already.
  const goes = state === 'mended' ? ['worked-on', 'gone'] : ['worked-on'];
  if (finding !== undefined && goes.includes(finding.state))
    await findings.saveFinding({
      ...{ ...finding, byName, changedAtMs: nowMs, reason: note },
      state: state === 'mended' ? 'mended' : 'open',
      closedAtMs: state === 'mended' ? nowMs : null,
    });
  return done(ended);
}

/** Goes on with a hunt that had ended. */
export async function resumeHunt(
  context: ConsoleContext,
  huntId: string,
): Promise<Outcome<StoredHunt, 'hunt-unknown'>> {
  const hunt = await context.store.findings.hunt(huntId);
  if (hunt === null) return failed('hunt-unknown');
  const open: StoredHunt = { ...hunt, state: 'open', closedAtMs: null, outcome: null };
  await context.store.findings.saveHunt(open);
  return done(open);
}
