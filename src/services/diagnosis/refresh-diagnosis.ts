import { diagnose, type DiagnosisInput, type Finding } from '@/core';
import type { StoredFinding } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { officeEvidence } from './office-evidence';

const thinkHere = (_siteId: string, input: DiagnosisInput) => Promise.resolve(diagnose(input));

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

const isAsKept = (now: StoredFinding, kept: StoredFinding | undefined): boolean =>
  kept !== undefined && JSON.stringify(now) === JSON.stringify(kept);

function goneNow(before: StoredFinding, nowMs: number): StoredFinding | null {
  if (before.state !== 'open' && before.state !== 'worked-on') return null;
  return { ...before, state: 'gone', changedAtMs: nowMs, closedAtMs: nowMs };
}

/** Offices that are to be looked at, and the version of the runs that each was looked at with. By the console's changes. */
const due = new WeakMap<
  ConsoleContext['changes'],
  { readonly asked: Set<string>; readonly seen: Map<string, string> }
>();

function dueOf({ changes }: ConsoleContext) {
  const known = due.get(changes);
  if (known !== undefined) return known;
  const made = { asked: new Set<string>(), seen: new Map<string, string>() };
  due.set(changes, made);
  // A device, a peer or a plan that was changed may change what is sound: all offices are looked at again.
  changes.listen((what) => {
    if (what.includes('office')) made.seen.clear();
  });
  return made;
}

/** What was found in an office may have changed: it is worked out anew before long, however often this is said. */
export function findingsAreDue(context: ConsoleContext, siteId: string): void {
  dueOf(context).asked.add(siteId);
}

/**
 * Works out anew what stands out in the offices where runs have come or gone since, or something else was changed; once
 * a day all of them, for evidence gets old.
 */
export async function refreshDueDiagnoses(context: ConsoleContext): Promise<void> {
  const { asked, seen } = dueOf(context);
  const versions = await context.store.runs.siteVersions();
  const day = Math.floor(context.wallMs() / (24 * 3600_000));
  for (const { id } of await context.store.sites.all()) {
    const version = `${versions.get(id)} ${day}`;
    if (seen.get(id) === version && !asked.has(id)) continue;
    asked.delete(id);
    // Set first: what is changed while it is worked out is looked at the next time.
    seen.set(id, version);
    await refreshDiagnosis(context, id);
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
  const [diagnosis, known] = await Promise.all([
    (context.think ?? thinkHere)(siteId, { ...evidence, segments: pathsOf.all }),
    findings.findingsOf(siteId),
  ]);
  const nowMs = context.wallMs();
  // Somebody may have let one be while it was thought.
  const states = await findings.statesOf(siteId);
  const before = new Map(
    known.flatMap((each) => {
      const state = states.get(each.id);
      return state === undefined ? [] : [[each.findingKey, { ...each, ...state }] as const];
    }),
  );
  const found = diagnosis.findings.map((finding) => ({
    ...foundNow(finding, before.get(finding.key), nowMs, context.newId),
    siteId,
  }));
  const keys = new Set(found.map(({ findingKey }) => findingKey));
  const gone = [...before.values()].flatMap((each) => (keys.has(each.findingKey) ? [] : (goneNow(each, nowMs) ?? [])));
  // Most stand as they stood: writing them again would take longer than thinking.
  const changed = [...found, ...gone].filter((each) => !isAsKept(each, before.get(each.findingKey)));
  await findings.saveDiagnosis(siteId, nowMs, diagnosis, changed);
  context.changes.tell('findings');
}
