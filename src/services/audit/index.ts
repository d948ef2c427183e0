export { AUDIT_CODES, type AuditCode } from './audit-codes';
export { auditPageOf, forgetOldAudit, type AuditPage, type AuditQuery } from '../views/audit-page';
export { noteAudit, type AuditActor, type AuditNote } from './note-audit';
