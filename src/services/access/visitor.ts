import type { Site, StoredLabel } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import { readClientAddress } from '@/wire/address';
import type { ConsoleContext } from '../console/console-context';
import { deviceOfCookie } from './device-cookie';
import { isHere } from './here-link';
import { isLabelId, readJoinCode } from './join-codes';

/** Who opened the device page: with what code, with what cookie, from what address. */
export interface Visitor {
  readonly code: string | null;
  readonly cookie: string | null;
  /** Client address as the front door saw it. */
  readonly address: string | null;
  /** What proves that whoever opened the page reads the terminal of this machine; absent where nothing does. */
  readonly here?: string | null | undefined;
}

/** The office that a visitor may measure in, and the device that this browser was before, if any. */
export interface Admission {
  readonly site: Site;
  readonly knownDeviceId: string | null;
  /** The one device that this visitor may run as; null where a code or the link of this machine lets it be any. */
  readonly bound: string | null;
  /** Whether it is proven that whoever asks reads the terminal of this machine. */
  readonly here: boolean;
  /** The label that was scanned; null: a code was typed, or none was needed. */
  readonly label: StoredLabel | null;
}

/** A code opens its office; without one, a cookie does: that of a device, or of the link that this machine's terminal shows. */
export async function admit(
  context: ConsoleContext,
  visitor: Visitor,
): Promise<
  Outcome<Admission, 'code-unknown' | 'code-ended' | 'too-many-tries' | 'not-joined' | 'site-missing' | 'label-unknown'>
> {
  const { sites } = context.store;
  const known = await deviceOfCookie(context, visitor.cookie);
  if (visitor.address !== null && !readClientAddress(visitor.address).sameMachine)
    context.reached.note(visitor.address, context.wallMs());
  const here = isHere(context, visitor.here ?? null);
  const admitted = (site: Site, bound: string | null = null, label: StoredLabel | null = null) =>
    done({ site, bound, here, label, knownDeviceId: known?.siteId === site.id ? known.id : null });

  if (visitor.code !== null) {
    const code = readJoinCode(visitor.code);
    const nowMs = context.wallMs();
    const seconds = context.tries.waitSeconds(visitor.address, nowMs);
    if (seconds > 0) return failed('too-many-tries', { seconds });
    if (isLabelId(code)) {
      const label = await context.store.findings.label(code);
      const labelled = label === null || label.revokedAtMs !== null ? null : await sites.byId(label.siteId);
      if (label !== null && labelled !== null) return admitted(labelled, null, label);
      context.tries.failed(visitor.address, nowMs);
      return failed('label-unknown');
    }
    const site = await sites.byJoinCode(code);
    if (site === null) {
      context.tries.failed(visitor.address, nowMs);
      return failed('code-unknown', { code });
    }
    return site.joinCodeUntilMs > nowMs ? admitted(site) : failed('code-ended', { code });
  }
  if (known !== null) {
    const site = await sites.byId(known.siteId);
    if (site !== null) return admitted(site, here ? null : known.id);
  }
  if (!here) return failed('not-joined');
  const [first] = await sites.all();
  return first === undefined ? failed('site-missing') : admitted(first);
}
