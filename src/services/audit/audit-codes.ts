/** Everything that is written down about what people and scripts did. The words are made where it is read. */
export const AUDIT_CODES = [
  ...['signed-in', 'sign-in-failed', 'signed-out', 'sign-in-ended', 'passphrase-set', 'passphrase-changed'],
  ...['person-added', 'person-removed', 'person-linked', 'keeper-set', 'token-made', 'token-revoked'],
  ...['office-saved', 'office-removed', 'office-put-back', 'demo-removed', 'code-renewed'],
  ...['line-saved', 'line-used', 'line-removed', 'plan-corrected', 'plan-removed'],
  ...['device-saved', 'device-removed', 'device-merged', 'device-opened'],
  ...['peer-saved', 'peer-removed', 'peer-pinned', 'peer-key-accepted', 'removal-undone'],
  ...['run-noted', 'run-shared', 'run-unshared', 'round-queued', 'turn-withdrawn', 'copy-made', 'keeping-changed'],
  ...['letterhead-saved', 'alternation-started', 'alternation-moved', 'alternation-stopped'],
  ...['runs-tagged', 'runs-noted', 'runs-left-out', 'runs-removed', 'view-saved', 'view-removed'],
  ...['agent-retired', 'link-change-seen', 'schedule-made', 'schedule-paused', 'schedule-removed', 'budget-set'],
  ...[
    'rules-saved',
    'recipient-added',
    'recipient-paused',
    'recipient-removed',
    'recipient-tried',
    'mail-server-saved',
  ],
  ...['runs-imported', 'import-undone'],
  ...['comparison-made', 'comparison-changed', 'comparison-removed', 'comparison-shared', 'comparison-unshared'],
  ...['case-opened', 'case-changed', 'case-closed', 'case-removed'],
  ...['finding-let-be', 'finding-opened', 'hunt-opened', 'hunt-noted', 'hunt-checked', 'hunt-ended', 'hunt-resumed'],
  ...['swap-noted', 'swap-undone', 'queue-set', 'labels-made', 'labels-revoked', 'complaint-seen'],
] as const satisfies readonly string[];
export type AuditCode = (typeof AUDIT_CODES)[number];
