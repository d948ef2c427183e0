import {
  linkKindWords,
  partOfDay,
  planPayloadBps,
  rateFigure,
  SATURDAY,
  type LinkKind,
  type Plan,
  type SideRun,
} from '@/core';
import type { ComparedRow } from '@/store';
import { calendarIn } from '../diagnosis';

const planWords = (plan: Plan | null) =>
  plan === null
    ? 'no plan'
    : `${plan.name} ${rateFigure(planPayloadBps(plan, 'down'))}/${rateFigure(planPayloadBps(plan, 'up'))}`;

/** Rows of runs as they are compared, with their conditions told in the time zone of the office. */
export function sideRunsOf(rows: readonly ComparedRow[], timeZone: string | null): SideRun[] {
  const momentOf = calendarIn(timeZone);
  // Plain objects and words that are made once: thousands of runs are held side by side at a time.
  const plans = new Map<string, string>();
  const planOf = (plan: Plan | null) => {
    const key = plan === null ? '' : `${plan.name} ${plan.downBps} ${plan.upBps} ${plan.basis}`;
    const known = plans.get(key);
    if (known !== undefined) return known;
    const words = planWords(plan);
    plans.set(key, words);
    return words;
  };
  // Of those that are the same there is one: they go to another thread as one.
  const traitsOf = new Map<string, SideRun['traits']>();
  const shared = (traits: SideRun['traits']) => {
    const key = Object.values(traits).join('\n');
    const known = traitsOf.get(key);
    if (known === undefined) traitsOf.set(key, traits);
    return known ?? traits;
  };
  return rows.map((row): SideRun => {
    const { hour, weekday } = momentOf(row.startedAtMs);
    const { brief } = row;
    return {
      id: row.id,
      startedAtMs: row.startedAtMs,
      occasion: row.setId,
      figures: {
        down: row.downBps,
        up: row.upBps,
        idle: row.idleMs,
        addedDown: brief?.addedDownMs ?? null,
        addedUp: brief?.addedUpMs ?? null,
        jitter: brief?.jitterMs ?? null,
        loss: brief?.lossShare ?? null,
      },
      traits: shared({
        link: linkKindWords(row.linkKind as LinkKind),
        reach: row.reach,
        device: row.deviceName,
        peer: row.peerName,
        line: row.lineName ?? 'none',
        plan: planOf(row.plan),
        practice: row.practice ? 'yes' : 'no',
        spot: row.spotName ?? 'no spot',
        profile: row.profile,
        told: row.told.join(', ') || 'nothing',
        hours: partOfDay(hour),
        weekdays: weekday < SATURDAY ? 'weekdays' : 'weekends',
        method: row.evidence === 'imported' ? 'from a file' : String(row.methodVersion ?? 'unknown'),
      }),
    };
  });
}
