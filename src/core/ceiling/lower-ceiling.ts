import type { LinkCeiling } from './link-ceiling-type';

/** What two links one after the other can carry: the lower of both. Null where either is not known: then nothing is. */
export function lowerCeiling(one: LinkCeiling | null, other: LinkCeiling | null): LinkCeiling | null {
  if (one === null || other === null) return null;
  return other.payloadBps < one.payloadBps ? other : one;
}
