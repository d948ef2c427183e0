import { diagnose, type DiagnosisInput, type Finding } from '@/core';
import type { StoredFinding } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { officeEvidence } from './office-evidence';

const thinkHere = (input: DiagnosisInput) => Promise.resolve(diagnose(input));

/** States in which a finding stands: what is found again does not open it a second time. */
const STANDS = ['open', 'worked-on', 'let-be'];

/** What becomes of one that was found, now or before. */
function foundNow(
  finding: Finding,
  before: StoredFinding | undefined,
  nowMs: number,
  newId: () => string,
): StoredFinding {
  const told = { finding, strength: finding.strength };
  if (before === undefined)
    return {
      ...{ id: newId(), siteId: '', findingKey: finding.key, state: 'open', reason: '', byName: '' },
      ...{ openedAtMs: nowMs, changedAtMs: nowMs, closedAtMs: null, ...told },
    };
  if (STANDS.includes(before.state))
    return { ...before, ...told, changedAtMs: before.strength === finding.strength ? before.changedAtMs : nowMs };
  // It was gone, or mended, and the evidence turned: it is open again.
  return { ...before, ...told, state: 'open', changedAtMs: nowMs, closedAtMs: null };
}

function goneNow(before: StoredFinding, nowMs: number): StoredFinding | null {
  if (before.state !== 'open' && before.state !== 'worked-on') return null;
  return { ...before, state: 'gone', changedAtMs: nowMs, closedAtMs: nowMs };
}

const due = new WeakMap<ConsoleContext['changes'], Set<string>>();

/** What was found in an office may have changed: it is worked out anew before long, however often this is said. */
export function findingsAreDue(context: ConsoleContext, siteId: string): void {
  const sites = due.get(context.changes) ?? new Set<string>();
  due.set(context.changes, sites.add(siteId));
}

const knownVersions = new WeakMap<ConsoleContext['changes'], Map<string, string>>();

/**
 * Works out anew what stands out in the offices where runs have come or gone since, or something else was changed; once
 * a day all of them, for evidence gets old.
 */
export async function refreshDueDiagnoses(context: ConsoleContext): Promise<void> {
  const versions = knownVersions.get(context.changes) ?? new Map<string, string>();
  knownVersions.set(context.changes, versions);
  const asked = due.get(context.changes);
  const runsVersion = await context.store.runs.boardVersion();
  const day = Math.floor(context.wallMs() / (24 * 3600_000));
  for (const { id } of await context.store.sites.all()) {
    const version = `${runsVersion} ${day}`;
    if (versions.get(id) === version && asked?.has(id) !== true) continue;
    asked?.delete(id);
    await refreshDiagnosis(context, id);
    versions.set(id, version);
  }
}

/**
 * Works out anew what stands out in an office, and keeps it: what is found for the first time opens, what is found no
 * more is gone, what was gone or mended and is found again opens again. Boards hear of it when something changed.
 */
export async function refreshDiagnosis(context: ConsoleContext, siteId: string): Promise<void> {
  const { findings } = context.store;
  // What tells the paths of other runs stays here: it cannot go to another thread.
  const { office: pathsOf, ...evidence } = await officeEvidence(context, siteId);
  const diagnosis = await (context.think ?? thinkHere)({ ...evidence, segments: pathsOf.all });
  const nowMs = context.wallMs();
  const before = new Map((await findings.findingsOf(siteId)).map((each) => [each.findingKey, each]));
  const found = diagnosis.findings.map((finding) => ({
    ...foundNow(finding, before.get(finding.key), nowMs, context.newId),
    siteId,
  }));
  const keys = new Set(found.map(({ findingKey }) => findingKey));
  const gone = [...before.values()].flatMap((each) => (keys.has(each.findingKey) ? [] : (goneNow(each, nowMs) ?? [])));
  await findings.saveDiagnosis(siteId, nowMs, diagnosis, [...found, ...gone]);
  context.changes.tell('findings');
}
