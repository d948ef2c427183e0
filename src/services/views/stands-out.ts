import { findingWords, groupedBy, isGoodNews, type Diagnosis, type Finding, type Strength } from '@/core';
import type { Device, FindingState, StandingFinding } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** A finding as the board and the hunt show it. */
export interface ShownFinding {
  readonly id: string;
  readonly key: string;
  readonly code: Finding['facts']['code'];
  readonly sentence: string;
  readonly nextStep: string;
  /** Something got better: nothing is to be hunted. */
  readonly isGood: boolean;
  readonly strength: Strength;
  readonly state: FindingState;
  readonly reason: string;
  readonly openedAtMs: number;
  readonly sinceMs: number;
  /** Names of the devices that it touches, and how many in all. */
  readonly devices: readonly string[];
  readonly deviceCount: number;
  /** Run ids, the newest ones that still stand. */
  readonly runsFor: readonly string[];
  readonly runsAgainst: readonly string[];
  readonly segmentIds: readonly string[];
}

/** Somebody said that it is slow, and what was measured there then. */
export interface ShownComplaint {
  readonly id: string;
  readonly deviceName: string;
  readonly deviceId: string | null;
  readonly spotName: string | null;
  readonly what: string;
  readonly atMs: number;
}

/** What stands out in an office. */
export interface StandsOut {
  /** Said within a day and not seen yet, the newest first. */
  readonly complaints: readonly ShownComplaint[];
  /** Worst first; those that were let be come last. */
  readonly findings: readonly ShownFinding[];
  /** When it was worked out last; null: not yet. */
  readonly madeAtMs: number | null;
  /** Devices that nothing was measured on for two weeks. */
  readonly unmeasured: readonly string[];
}

/** What somebody said stands on the board for a day. */
const COMPLAINT_MS = 24 * 3600_000;
const MOST_RUNS = 8;
const MOST_NAMES = 3;
const SHOWN: readonly FindingState[] = ['open', 'worked-on', 'let-be'];

export function shownFinding(stored: StandingFinding, finding: Finding, devices: readonly Device[]): ShownFinding {
  const names = finding.deviceIds.flatMap((id) => devices.find((device) => device.id === id)?.name ?? []);
  return {
    ...{ id: stored.id, key: stored.findingKey, code: finding.facts.code },
    ...findingWords(finding),
    isGood: isGoodNews(finding),
    ...{ strength: finding.strength, state: stored.state, reason: stored.reason },
    ...{ openedAtMs: stored.openedAtMs, sinceMs: finding.sinceMs },
    ...{ devices: names.slice(0, MOST_NAMES), deviceCount: names.length },
    runsFor: finding.evidence.for.slice(-MOST_RUNS),
    runsAgainst: finding.evidence.against.slice(-MOST_RUNS),
    segmentIds: finding.segments.map(({ id }) => id),
  };
}

/** Findings of an office that stand, in the order in which the diagnosis has them. */
export async function standsOut(
  context: ConsoleContext,
  siteId: string,
  devices: readonly Device[],
): Promise<StandsOut & { readonly diagnosis: Diagnosis | null }> {
  const [kept, stored, complaints] = await Promise.all([
    context.store.findings.diagnosis(siteId),
    context.store.findings.standingOf(siteId, SHOWN),
    context.store.findings.complaintsSince(siteId, context.wallMs() - COMPLAINT_MS),
  ]);
  const standing = groupedBy(stored, ({ findingKey }) => findingKey);
  const findings = (kept?.diagnosis.findings ?? []).flatMap((finding) =>
    (standing.get(finding.key) ?? []).map((each) => shownFinding(each, finding, devices)),
  );
  const measured = new Set(kept?.diagnosis.segments.flatMap(({ deviceIds }) => deviceIds));
  return {
    complaints: complaints
      .filter(({ seenAtMs }) => seenAtMs === null)
      .map(({ id, deviceName, deviceId, spotName, what, atMs }) => ({
        ...{ id, deviceName, spotName, what, atMs },
        deviceId: devices.find((device) => device.id === deviceId || device.name === deviceName)?.id ?? null,
      })),
    findings: [
      ...findings.filter(({ state }) => state !== 'let-be'),
      ...findings.filter(({ state }) => state === 'let-be'),
    ],
    madeAtMs: kept?.madeAtMs ?? null,
    unmeasured: kept === null ? [] : devices.filter(({ id }) => !measured.has(id)).map(({ name }) => name),
    diagnosis: kept?.diagnosis ?? null,
  };
}
