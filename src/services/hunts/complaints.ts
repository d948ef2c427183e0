import type { StoredComplaint } from '@/store';
import { done, failed, type ComplaintForm, type Outcome } from '@/wire';
import { findingsAreDue } from '../diagnosis';
import { admit, type Visitor } from '../access/visitor';
import type { ConsoleContext } from '../console/console-context';

type Refusal = Extract<Awaited<ReturnType<typeof admit>>, { ok: false }>['fault']['code'] | 'label-busy';

/** Somebody says that it is slow now. Kept with the minute, and shown on the board until a technician has seen it. */
export async function noteComplaint(
  context: ConsoleContext,
  visitor: Visitor,
  { what, deviceName, spotName }: ComplaintForm,
): Promise<Outcome<StoredComplaint, Refusal>> {
  const admission = await admit(context, visitor);
  if (!admission.ok) return admission;
  const { site, label, knownDeviceId } = admission.value;
  const nowMs = context.wallMs();
  const { complaintsOfAddress, complaintsOfOffice } = context.uses;
  const seconds =
    complaintsOfAddress.use(visitor.address ?? 'unknown', nowMs) ?? complaintsOfOffice.use(site.id, nowMs);
  if (seconds !== null) return failed('label-busy', { minutes: Math.max(1, Math.ceil(seconds / 60)) });
  const known = knownDeviceId === null ? null : await context.store.sites.device(knownDeviceId);
  const complaint: StoredComplaint = {
    ...{ id: context.newId(), siteId: site.id, deviceId: knownDeviceId ?? label?.deviceId ?? '' },
    ...{ deviceName: known?.name ?? deviceName, spotName: spotName === '' ? null : spotName, what, atMs: nowMs },
    ...{ runIds: [], huntId: null, seenAtMs: null },
  };
  await context.store.findings.saveComplaint(complaint);
  findingsAreDue(context, site.id);
  context.changes.tell('findings');
  return done(complaint);
}

/** A technician has seen it: it leaves the board. */
export async function seeComplaint(
  context: ConsoleContext,
  complaintId: string,
): Promise<Outcome<StoredComplaint, 'finding-unknown'>> {
  const complaint = await context.store.findings.complaint(complaintId);
  if (complaint === null) return failed('finding-unknown');
  const seen = { ...complaint, seenAtMs: context.wallMs() };
  await context.store.findings.saveComplaint(seen);
  return done(seen);
}
