import type { UnfinishedReason } from '@/core';
import type { FarLook } from '@/wire';
import { peerBaseUrl } from '@/wire/address';
import { LookFault } from './look-fault';

/** Where a far end is that has a part in a look, and what is said when it does not play it. */
export interface ReachedFar {
  readonly baseUrl: string;
  readonly away: () => LookFault;
  /** It opened no session. */
  readonly refused: (reason: UnfinishedReason) => LookFault;
}

/** `origin`: of the console, which may itself be the far end. Throws LookFault: there is none, or its address makes no sense. */
export function reachFar(far: FarLook | null, origin: string): ReachedFar & { readonly far: FarLook } {
  if (far === null) throw new LookFault('no-outside');
  const away = () => new LookFault('outside-away', { peer: far.name });
  const baseUrl = peerBaseUrl(far.address, origin);
  if (baseUrl === null) throw away();
  const refused = (reason: UnfinishedReason) =>
    reason === 'peer-unreachable' ? away() : new LookFault('outside-busy', { peer: far.name });
  return { far, baseUrl, away, refused };
}
