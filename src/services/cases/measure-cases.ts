import { caseRunIsDue } from '@/core';
import type { StoredCase } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { calendarIn } from '../diagnosis';
import { queueTurns } from '../turns';
import { caseStanding } from './case-standing';

async function measureCase(context: ConsoleContext, stored: StoredCase, deviceId: string): Promise<void> {
  const { store, standing, wallMs } = context;
  // What is not there is not asked, and what waits already is not asked twice.
  if (!standing.isPresent(deviceId) || (await store.turns.open()).some((turn) => turn.deviceId === deviceId)) return;
  const site = await store.sites.byId(stored.siteId);
  const { rows, evidence } = await caseStanding(context, stored);
  const atMs = wallMs();
  const moment = calendarIn(site?.timeZone ?? null)(atMs);
  // What was asked for and came to nothing was an attempt too: nobody is asked again and again.
  const lastMs = Math.max(stored.askedAtMs ?? -Infinity, rows.at(-1)?.startedAtMs ?? -Infinity);
  if (!caseRunIsDue(evidence, stored.rule, { atMs, ...moment }, Number.isFinite(lastMs) ? lastMs : null)) return;
  await store.cases.save({ ...stored, askedAtMs: atMs });
  await queueTurns(context, `the case ${stored.title}`, {
    ...{ siteId: stored.siteId, deviceIds: [deviceId], reaches: ['internet'], times: 1 },
    ...{ profile: 'standard', together: false },
  });
}

/** Has what cases miss measured by the devices that were named for it, spread over the day. */
export async function measureCases(context: ConsoleContext): Promise<void> {
  for (const stored of await context.store.cases.measuring())
    if (stored.deviceId !== null) await measureCase(context, stored, stored.deviceId);
}
