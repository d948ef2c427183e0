import type { AuditCode } from '@/services';

/** What entries are narrowed to. */
export const KIND_CODES = {
  'sign-ins': ['signed-in', 'sign-in-failed', 'signed-out', 'sign-in-ended', 'passphrase-set', 'passphrase-changed'],
  people: ['person-added', 'person-removed', 'person-linked', 'keeper-set', 'token-made', 'token-revoked'],
  plans: ['line-saved', 'line-used', 'line-removed', 'plan-corrected', 'plan-removed'],
  devices: ['device-saved', 'device-removed', 'device-merged', 'device-opened', 'removal-undone'],
  peers: ['peer-saved', 'peer-removed', 'peer-pinned', 'peer-key-accepted'],
  offices: [
    'office-saved',
    'office-removed',
    'office-put-back',
    'demo-removed',
    'code-renewed',
    'copy-made',
    'keeping-changed',
    'letterhead-saved',
  ],
  hunts: [
    ...['finding-let-be', 'finding-opened', 'hunt-opened', 'hunt-noted', 'hunt-checked', 'hunt-ended', 'hunt-resumed'],
    ...['swap-noted', 'swap-undone', 'queue-set', 'labels-made', 'labels-revoked', 'complaint-seen'],
  ] as const,
  runs: [
    ...['run-noted', 'run-shared', 'run-unshared', 'round-queued', 'turn-withdrawn'],
    ...['runs-tagged', 'runs-noted', 'runs-left-out', 'runs-removed', 'view-saved', 'view-removed'],
    ...['runs-imported', 'import-undone'],
    ...[
      'rules-saved',
      'recipient-added',
      'recipient-paused',
      'recipient-removed',
      'recipient-tried',
      'mail-server-saved',
    ],
    ...[
      'agent-retired',
      'link-change-seen',
      'neighbours-known',
      'schedule-made',
      'schedule-paused',
      'schedule-removed',
      'budget-set',
    ],
    ...['look-asked', 'look-stopped', 'lane-added', 'lane-ended', 'mark-begun', 'mark-ended', 'mark-removed'],
    ...['alternation-started', 'alternation-moved', 'alternation-stopped'],
    ...['comparison-made', 'comparison-changed', 'comparison-removed', 'comparison-shared', 'comparison-unshared'],
    ...['case-opened', 'case-changed', 'case-closed', 'case-removed'],
  ] as const,
} as const satisfies Readonly<Record<string, readonly AuditCode[]>>;

export type Kind = keyof typeof KIND_CODES;

export const KIND_WORDS: Readonly<Record<Kind, string>> = {
  'sign-ins': 'sign-ins and passphrases',
  people: 'people and scripts',
  plans: 'lines and plans',
  devices: 'devices',
  peers: 'peers',
  offices: 'offices, codes and copies',
  hunts: 'findings, hunts and swaps',
  runs: 'runs, rounds and links',
};

export function readKind(text: string | null): Kind | null {
  return text !== null && Object.hasOwn(KIND_CODES, text) ? (text as Kind) : null;
}
