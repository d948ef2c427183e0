import type { Finding } from '../diagnose/finding';
import type { Fault } from '../lanes/whose-fault';
import { median } from '../stats/percentile';

/** What an office wants to be told of; null: not of that. */
export interface AlarmRules {
  /** So many occasions in a row did not meet the plan. */
  readonly planNotMet: number | null;
  /** The line's load adds more than so much delay, the median of its newest three occasions, ms. */
  readonly addedDelayMs: number | null;
  /** An agent was not heard of for so many minutes. */
  readonly agentSilentMinutes: number | null;
  /** Something that is watched was silent for so many seconds. */
  readonly outageSeconds: number | null;
  /** Something stands out that did not before. */
  readonly findings: boolean;
  /** A line's rates have another level since lately. */
  readonly levelShifts: boolean;
  /** So much of the month's data volume is used, percent. */
  readonly budgetPercent: number | null;
}

export const USUAL_RULES: AlarmRules = {
  ...{
    planNotMet: 3,
    addedDelayMs: null,
    agentSilentMinutes: 15,
    outageSeconds: 60,
    findings: true,
    levelShifts: true,
  },
  budgetPercent: 80,
};

/** An occasion of a line, as far as alarms look at it. Null: it could not tell. */
export interface LineOccasion {
  readonly planMet: boolean | null;
  readonly addedMs: number | null;
}

/** A change of level that was found in the course of a line. Bits per second. */
export interface LineShift {
  readonly direction: 'down' | 'up';
  readonly beforeBps: number;
  readonly afterBps: number;
  /** When it was, as exactly as that is known. */
  readonly fromMs: number;
  readonly untilMs: number;
}

/** What is known of an office at a moment. */
export interface AlarmState {
  readonly nowMs: number;
  readonly lines: readonly {
    readonly id: string;
    readonly name: string;
    /** The newest first. */
    readonly newest: readonly LineOccasion[];
    readonly shifts: readonly LineShift[];
    readonly movedBytes: number;
    readonly budgetBytes: number | null;
  }[];
  readonly agents: readonly {
    readonly id: string;
    readonly name: string;
    /** Since when nothing was heard of it; null: it stands by. */
    readonly silentSinceMs: number | null;
  }[];
  readonly findings: readonly { readonly key: string; readonly finding: Finding }[];
  readonly outages: readonly ToldOutage[];
}

/** Something that was silent, as it is told. */
export interface ToldOutage {
  readonly id: string;
  readonly fault: Fault;
  /** Of what was silent. */
  readonly names: readonly string[];
  readonly air: boolean;
  readonly fromMs: number;
  /** Null: it goes on, as far as is known. */
  readonly untilMs: number | null;
}

/** Something to be told: codes and figures; the words are made at the edge. */
export type Alarm =
  | { readonly kind: 'plan-not-met'; readonly line: string; readonly occasions: number }
  | { readonly kind: 'added-delay'; readonly line: string; readonly addedMs: number; readonly overMs: number }
  | { readonly kind: 'agent-silent'; readonly agent: string; readonly sinceMs: number }
  | ({ readonly kind: 'outage' } & Omit<ToldOutage, 'id'>)
  | { readonly kind: 'finding'; readonly finding: Finding }
  | ({ readonly kind: 'level-shift'; readonly line: string } & LineShift)
  | { readonly kind: 'budget'; readonly line: string; readonly movedBytes: number; readonly budgetBytes: number };
export type AlarmKind = Alarm['kind'];

/** An alarm with what it is about: the same key is the same thing, which is told once. */
export interface KeyedAlarm {
  readonly key: string;
  readonly alarm: Alarm;
}

/** Of so many occasions the middle one counts for the delay that a line adds. */
const DELAY_OCCASIONS = 3;
/** An added delay that was told is over below this share of its limit: one that lies at the limit is not told again and again. */
const OVER_BELOW = 0.8;
const DAY_MS = 24 * 3600_000;
/** An outage that was over before it was known of is news for so long. */
const OUTAGE_IS_NEWS_MS = 30 * 60_000;
/** A change of level is news for so long. */
const SHIFT_IS_NEWS_MS = 3 * DAY_MS;

/**
 * A change of level by the two days around its middle. The same change is placed a little otherwise with each further run: one
 * that was told a place further goes on under that name.
 */
function shiftKey(lineId: string, { direction, fromMs, untilMs }: LineShift, open: ReadonlySet<string>): string {
  const place = Math.round((fromMs + untilMs) / 2 / (2 * DAY_MS));
  const keyAt = (at: number) => `level-shift ${lineId} ${direction} ${at}`;
  return [place, place - 1, place + 1].map(keyAt).find((key) => open.has(key)) ?? keyAt(place);
}

/**
 * What there is to be told now. `open`: keys of what was told and is not over; where a figure lies near its limit, what was
 * told stays until it is clearly below.
 */
export function alarmsOf(rules: AlarmRules, state: AlarmState, open: ReadonlySet<string>): KeyedAlarm[] {
  const found: KeyedAlarm[] = [];
  for (const { id, name: line, newest, shifts, movedBytes, budgetBytes } of state.lines) {
    const told = newest.filter(({ planMet }) => planMet !== null);
    const missed = told.findIndex(({ planMet }) => planMet === true);
    const inARow = missed === -1 ? told.length : missed;
    if (rules.planNotMet !== null && inARow >= rules.planNotMet)
      found.push({ key: `plan-not-met ${id}`, alarm: { kind: 'plan-not-met', line, occasions: inARow } });

    const added = newest.flatMap(({ addedMs }) => addedMs ?? []).slice(0, DELAY_OCCASIONS);
    const key = `added-delay ${id}`;
    if (rules.addedDelayMs !== null && added.length === DELAY_OCCASIONS) {
      const addedMs = median(added)!;
      const limit = open.has(key) ? OVER_BELOW * rules.addedDelayMs : rules.addedDelayMs;
      if (addedMs > limit)
        found.push({ key, alarm: { kind: 'added-delay', line, addedMs, overMs: rules.addedDelayMs } });
    }

    if (rules.levelShifts)
      for (const shift of shifts) {
        if (state.nowMs - shift.untilMs > SHIFT_IS_NEWS_MS) continue;
        found.push({ key: shiftKey(id, shift, open), alarm: { kind: 'level-shift', line, ...shift } });
      }

    if (rules.budgetPercent !== null && budgetBytes !== null && movedBytes >= (rules.budgetPercent / 100) * budgetBytes)
      found.push({ key: `budget ${id}`, alarm: { kind: 'budget', line, movedBytes, budgetBytes } });
  }
  for (const { id, name: agent, silentSinceMs } of state.agents)
    if (
      rules.agentSilentMinutes !== null &&
      silentSinceMs !== null &&
      state.nowMs - silentSinceMs >= rules.agentSilentMinutes * 60_000
    )
      found.push({ key: `agent-silent ${id}`, alarm: { kind: 'agent-silent', agent, sinceMs: silentSinceMs } });
  if (rules.outageSeconds !== null)
    for (const { id, ...outage } of state.outages) {
      const key = `outage ${id}`;
      const { fromMs, untilMs } = outage;
      const isLong = (untilMs ?? state.nowMs) - fromMs >= rules.outageSeconds * 1000;
      // One that was told is over as soon as it is; one that is over already is told once, as long as it is news.
      const holds = untilMs === null || (!open.has(key) && state.nowMs - untilMs < OUTAGE_IS_NEWS_MS);
      if (isLong && holds) found.push({ key, alarm: { kind: 'outage', ...outage } });
    }
  if (rules.findings)
    for (const { key, finding } of state.findings)
      found.push({ key: `finding ${key}`, alarm: { kind: 'finding', finding } });
  return found;
}

/** When nobody is to be told, minutes since midnight of the office; over midnight where it ends before it begins. */
export interface QuietHours {
  readonly fromMinute: number;
  readonly untilMinute: number;
}

/** Minutes until quiet hours are over; 0: they are not now. */
export function quietForMinutes(quiet: QuietHours | null, minute: number): number {
  if (quiet === null) return 0;
  const { fromMinute, untilMinute } = quiet;
  const DAY = 24 * 60;
  const isQuiet =
    fromMinute <= untilMinute
      ? minute >= fromMinute && minute < untilMinute
      : minute >= fromMinute || minute < untilMinute;
  return isQuiet ? (untilMinute - minute + DAY) % DAY : 0;
}
