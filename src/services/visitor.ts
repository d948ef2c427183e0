import type { Site } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import { readClientAddress } from '@/wire/address';
import type { ConsoleContext } from './console-context';
import { deviceOfCookie } from './device-cookie';
import { readJoinCode } from './join-code';

/** Who opened the device page: with what code, with what cookie, from what address. */
export interface Visitor {
  readonly code: string | null;
  readonly cookie: string | null;
  /** Client address as the front door saw it. */
  readonly address: string | null;
}

/** The office that a visitor may measure in, and the device that this browser was before, if any. */
export interface Admission {
  readonly site: Site;
  readonly knownDeviceId: string | null;
}

/** A code opens its office; without one, a cookie or being this very machine does. */
export async function admit(
  context: ConsoleContext,
  visitor: Visitor,
): Promise<Outcome<Admission, 'code-unknown' | 'not-joined' | 'site-missing'>> {
  const { sites } = context.store;
  const known = await deviceOfCookie(context, visitor.cookie);
  const admitted = (site: Site) => done({ site, knownDeviceId: known?.siteId === site.id ? known.id : null });

  if (visitor.code !== null) {
    const code = readJoinCode(visitor.code);
    const site = await sites.byJoinCode(code);
    return site === null ? failed('code-unknown', { code }) : admitted(site);
  }
  if (known !== null) {
    const site = await sites.byId(known.siteId);
    if (site !== null) return admitted(site);
  }
  if (visitor.address === null || !readClientAddress(visitor.address).sameMachine) return failed('not-joined');
  const [first] = await sites.all();
  return first === undefined ? failed('site-missing') : admitted(first);
}
