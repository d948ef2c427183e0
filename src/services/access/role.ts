import type { Device, StoredRun } from '@/store';
import type { TokenScope } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { deviceOfCookie } from './device-cookie';
import { apiTokenOf, scopeOf } from './api-tokens';
import { signedInBy } from './sign-in';

/** Who may do things here: a person who signed in, or a script with a token. */
export interface Technician {
  readonly kind: 'technician';
  readonly name: string;
  /** What it may be used for: a person may do everything. */
  readonly scope: TokenScope;
  /** Null for a script. */
  readonly person: {
    readonly id: string;
    readonly signInId: string;
    /** Whether he may add and remove others, and see what they did. */
    readonly keeper: boolean;
  } | null;
}

/** Who asks. A technician may do everything; a device may measure and see its own results; a stranger may join. */
export type Role = Technician | { readonly kind: 'device'; readonly device: Device } | { readonly kind: 'stranger' };

/** What a browser or a script sent along: two cookies, and the `Authorization` header. */
export interface Proofs {
  readonly signIn: string | null;
  readonly device: string | null;
  readonly authorization: string | null;
}

export async function roleOf(context: ConsoleContext, proofs: Proofs): Promise<Role> {
  const script = await apiTokenOf(context, proofs.authorization);
  if (script !== null) return { kind: 'technician', name: script.name, scope: scopeOf(script), person: null };
  const signedIn = await signedInBy(context, proofs.signIn);
  if (signedIn !== null) {
    const { technician, signInId } = signedIn;
    const { id, name, keeper } = technician;
    return { kind: 'technician', name, scope: 'everything', person: { id, signInId, keeper } };
  }
  const device = await deviceOfCookie(context, proofs.device);
  return device === null ? { kind: 'stranger' } : { kind: 'device', device };
}

/** Whether somebody may see a run: the technician any, a device its own. */
export function maySeeRun(role: Role, run: Pick<StoredRun, 'deviceId'>): boolean {
  return role.kind === 'technician' || (role.kind === 'device' && role.device.id === run.deviceId);
}
