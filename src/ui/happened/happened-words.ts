import { rateWords } from '@/core';
import type { AuditCode, AuditPage } from '@/services';
import { wallTimeWords } from '../parts/wall-time';

type Entry = AuditPage['entries'][number];
type Facts = NonNullable<Entry['before']>;

/** What was done, after the name of who did it; `{}` stands for what it was done to. */
export const DEEDS: Readonly<Record<AuditCode, string>> = {
  'signed-in': 'signed in',
  'sign-in-failed': 'did not get in as {}',
  'signed-out': 'signed out',
  'sign-in-ended': 'ended a sign-in of {}',
  'passphrase-set': 'set a passphrase by a link',
  'passphrase-changed': 'changed the passphrase',
  'person-added': 'added {}',
  'person-removed': 'removed {}',
  'person-linked': 'made a link for {} to set a passphrase',
  'keeper-set': 'changed what {} may do',
  'token-made': 'made the token {}',
  'token-revoked': 'revoked the token {}',
  'office-saved': 'named the office {}',
  'office-removed': 'removed the office {}',
  'office-put-back': 'put the office {} back',
  'demo-removed': 'removed the demo data',
  'code-renewed': 'renewed the code',
  'line-saved': 'saved the line {}',
  'line-used': 'put the line {} in use',
  'line-removed': 'removed the line {}',
  'plan-corrected': 'corrected a plan of {}',
  'plan-removed': 'removed a plan of {}',
  'device-saved': 'saved the device {}',
  'device-removed': 'removed the device {}',
  'device-merged': 'made two devices one: {}',
  'device-opened': 'let another browser be {}',
  'peer-saved': 'saved the peer {}',
  'peer-removed': 'removed the peer {}',
  'peer-pinned': 'pinned the peer {}',
  'peer-key-accepted': 'accepted the new key of {}',
  'removal-undone': 'put {} back',
  'run-noted': 'wrote beside a run of {}',
  'run-shared': 'made a link to a run of {}',
  'run-unshared': 'revoked the link to a run of {}',
  'runs-tagged': 'put a tag on runs of {}',
  'runs-noted': 'wrote beside runs of {}',
  'runs-left-out': 'changed which runs of {} count',
  'runs-removed': 'removed runs of {}',
  'runs-imported': 'brought runs in from {}',
  'import-undone': 'took the runs of {} out again',
  'comparison-made': 'held side by side: {}',
  'comparison-changed': 'changed the comparison {}',
  'comparison-removed': 'removed the comparison {}',
  'comparison-shared': 'made a link to the comparison {}',
  'comparison-unshared': 'revoked the link to the comparison {}',
  'keeping-changed': 'changed how long samples are kept',
  'lane-added': 'added the lane {}',
  'lane-ended': 'ended the lane {}',
  'mark-begun': 'marked: {}',
  'mark-ended': 'ended the mark {}',
  'mark-removed': 'removed the mark {}',
  'look-asked': 'asked {} to look at something',
  'look-stopped': 'stopped a look of {}',
  'agent-retired': 'retired the agent {}',
  'link-change-seen': 'has seen what changed of a link of {}',
  'neighbours-known': 'knows who else is on the network of {}',
  'schedule-made': 'made the schedule {}',
  'schedule-paused': 'paused or took up the schedule {}',
  'schedule-removed': 'removed the schedule {}',
  'budget-set': 'set the data volume of {}',
  'rules-saved': 'changed what {} wants to be told of',
  'recipient-added': 'lets {} be told',
  'recipient-paused': 'paused or took up telling {}',
  'recipient-removed': 'tells {} nothing any more',
  'recipient-tried': 'tried whether {} can be told',
  'mail-server-saved': 'named the mail server {}',
  'alternation-started': 'began to measure turn and turn about: {}',
  'alternation-moved': 'went on with turn and turn about: {}',
  'alternation-stopped': 'stopped turn and turn about: {}',
  'letterhead-saved': 'changed the letterhead of reports',
  'case-opened': 'opened the case {}',
  'case-changed': 'changed the case {}',
  'case-closed': 'closed the case {}, or opened it again',
  'case-removed': 'removed the case {}',
  'view-saved': 'kept a view of the ledger of {}',
  'view-removed': 'forgot a view of the ledger of {}',
  'round-queued': 'queued a round',
  'turn-withdrawn': 'took the turn of {} out of the queue',
  'finding-let-be': 'let be: {}',
  'finding-opened': 'took up again: {}',
  'hunt-opened': 'opened a hunt: {}',
  'hunt-noted': 'wrote into the hunt: {}',
  'hunt-checked': 'looked first in the hunt: {}',
  'hunt-ended': 'ended the hunt: {}',
  'hunt-resumed': 'went on with the hunt: {}',
  'swap-noted': 'wrote down a swap: {}',
  'swap-undone': 'took back a swap: {}',
  'queue-set': 'set a queue, in the hunt: {}',
  'labels-made': 'made labels for {}',
  'labels-revoked': 'revoked the labels of {}',
  'complaint-seen': 'saw what was said at {}',
  'copy-made': 'had a copy made',
};

/** Who did what, in two parts: a name may be long. */
export function deedWords({ what, subject }: Pick<Entry, 'what' | 'subject'>): string {
  return (DEEDS[what as AuditCode] ?? what).replace('{}', () => subject);
}

export function whoWords({ who, whoKind }: Pick<Entry, 'who' | 'whoKind'>): string {
  if (whoKind === 'stranger') return 'Somebody';
  return whoKind === 'script' ? `the script ${who}` : who;
}

const FACT_NAMES: Readonly<Record<string, string>> = {
  ...{ name: 'name', provider: 'provider', inUse: 'in use', basis: 'counted as', fullFrom: 'met from' },
  ...{ downBps: 'down', upBps: 'up', leastDownBps: 'least down', leastUpBps: 'least up', validFromMs: 'from' },
  ...{ reach: 'reach', address: 'address', pinned: 'pinned', key: 'key', farSiteId: 'other end', spot: 'spot' },
  ...{ kind: 'kind', notes: 'notes', link: 'link', openUntilMs: 'open until', shared: 'shared', run: 'run' },
  ...{ keeper: 'keeper', invited: 'invited', scope: 'may', endsAtMs: 'until', ended: 'ended' },
  ...{ reaches: 'reaches', profile: 'profile', runs: 'runs' },
};

function valueWords(name: string, value: Facts[string]): string {
  if (value === null || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number' && name.endsWith('Bps')) return rateWords(value);
  if (typeof value === 'number' && name.endsWith('Ms')) return wallTimeWords(value);
  if (name === 'fullFrom') return `${Math.round(Number(value) * 100)} %`;
  return String(value);
}

/** "down: 500 Mb/s, before 50 Mb/s", one for each fact that changed or is worth reading. */
export function factWords({ before, after }: Pick<Entry, 'before' | 'after'>): string[] {
  const names = [...new Set([...Object.keys(after ?? {}), ...Object.keys(before ?? {})])].filter(
    // Who or what it was is said already.
    (name) => name !== 'name' || before?.[name] !== undefined,
  );
  return names.map((name) => {
    const label = FACT_NAMES[name] ?? name;
    const [was, is] = [before?.[name], after?.[name]];
    if (is === undefined) return `${label}: ${valueWords(name, was ?? null)}`;
    if (was === undefined) return `${label}: ${valueWords(name, is)}`;
    return `${label}: ${valueWords(name, is)}, before ${valueWords(name, was)}`;
  });
}
