import { plainAddress } from '@/wire/address';

/** No honest browser names more ways to reach it at one address. */
const MOST_CANDIDATES = 8;
/** candidate:foundation component transport priority address port … (RFC 8839 §5.1). */
const CANDIDATE = /^a=candidate:\S+ \d+ \S+ \d+ (\S+) \d+ /;

/** What a description that offers a data channel, and nothing beside it, has in it (RFC 8866 §5, RFC 8841 §5). */
const VERSION = /^v=0\r?\n/;
const DATA_CHANNEL = /^m=application [1-9]\d{0,4} (UDP|TCP)\/DTLS\/SCTP webrtc-datachannel\s*$/m;
const SECRETS = [/^a=ice-ufrag:\S+/m, /^a=ice-pwd:\S+/m, /^a=fingerprint:\S+ \S+/m] as const;

/** Whether a text offers one data channel: for anything else a connection would be opened that nobody can take up. */
export function offersChannel(text: string): boolean {
  if (!VERSION.test(text) || !DATA_CHANNEL.test(text)) return false;
  return (text.match(/^m=/gm) ?? []).length === 1 && SECRETS.every((each) => each.test(text));
}

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
