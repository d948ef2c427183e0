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
  return rows.map(({ id, setId, startedAtMs, brief, ...run }) => {
    const { hour, weekday } = momentOf(startedAtMs);
    return {
      ...{ id, startedAtMs, occasion: setId },
      figures: {
        ...{ down: run.downBps, up: run.upBps, idle: run.idleMs },
        ...{ addedDown: brief?.addedDownMs ?? null, addedUp: brief?.addedUpMs ?? null },
        ...{ jitter: brief?.jitterMs ?? null, loss: brief?.lossShare ?? null },
      },
      traits: {
        ...{
          link: linkKindWords(run.linkKind as LinkKind),
          reach: run.reach,
          device: run.deviceName,
          peer: run.peerName,
        },
        ...{ line: run.lineName ?? 'none', plan: planWords(run.plan), practice: run.practice ? 'yes' : 'no' },
        ...{ spot: run.spotName ?? 'no spot', profile: run.profile, told: run.told.join(', ') || 'nothing' },
        ...{ hours: partOfDay(hour), weekdays: weekday < SATURDAY ? 'weekdays' : 'weekends' },
        method: run.evidence === 'imported' ? 'from a file' : String(run.methodVersion ?? 'unknown'),
      },
    };
  });
}
