import { plainAddress } from '@/wire/address';

/** No honest browser names more ways to reach it at one address. */
const MOST_CANDIDATES = 8;
/** candidate:foundation component transport priority address port … (RFC 8839 §5.1). */
const CANDIDATE = /^a=candidate:\S+ \d+ \S+ \d+ (\S+) \d+ /;

/**
 * The offer with only those candidates that lie at the client's own address, at most eight: a peer sends UDP to nobody who
 * did not ask. Names (browsers hide addresses behind `.local` ones) are left out too: the browser's own packets then show
 * where it is.
 */
export function withOwnCandidates(offer: string, clientAddress: string): string {
  const own = plainAddress(clientAddress);
  let kept = 0;
  return offer
    .split(/\r?\n/)
    .filter((line) => {
      if (!line.startsWith('a=candidate:')) return !line.startsWith('a=remote-candidates:');
      const address = CANDIDATE.exec(line)?.[1];
      if (address === undefined || plainAddress(address) !== own || kept >= MOST_CANDIDATES) return false;
      kept += 1;
      return true;
    })
    .join('\r\n');
}
