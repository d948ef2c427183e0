export { AUDIT_CODES, type AuditCode } from './audit-codes';
export { forgetOldAudit, noteAudit, type AuditActor, type AuditNote } from './note-audit';
