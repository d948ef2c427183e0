import type { Device, StoredRun } from '@/store';
import type { ConsoleContext } from '../console-context';
import { deviceOfCookie } from '../device-cookie';
import { apiTokenOf } from './api-tokens';
import { technicianOf } from './sign-in';

/** Who asks. A technician may do everything; a device may measure and see its own results; a stranger may join. */
export type Role =
  | { readonly kind: 'technician'; readonly name: string }
  | { readonly kind: 'device'; readonly device: Device }
  | { readonly kind: 'stranger' };

/** What a browser or a script sent along: two cookies, and the `Authorization` header. */
export interface Proofs {
  readonly signIn: string | null;
  readonly device: string | null;
  readonly authorization: string | null;
}

export async function roleOf(context: ConsoleContext, proofs: Proofs): Promise<Role> {
  const script = await apiTokenOf(context, proofs.authorization);
  if (script !== null) return { kind: 'technician', name: script.name };
  const technician = await technicianOf(context, proofs.signIn);
  if (technician !== null) return { kind: 'technician', name: technician.name };
  const device = await deviceOfCookie(context, proofs.device);
  return device === null ? { kind: 'stranger' } : { kind: 'device', device };
}

/** Whether somebody may see a run: the technician any, a device its own. */
export function maySeeRun(role: Role, run: Pick<StoredRun, 'deviceId'>): boolean {
  return role.kind === 'technician' || (role.kind === 'device' && role.device.id === run.deviceId);
}
