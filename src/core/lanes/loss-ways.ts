/** On which way a packet was lost: to the far end, or back from it. */
export type LossWay = 'there' | 'back';

/** A request of a lane whose far end numbers its answers. */
export interface NumberedRequest {
  /** The sender's own number, one higher each time; another base after each beginning. */
  readonly key: number;
  /** The numbers that the far end gave its answers to it: none, one, or more where a packet was doubled on its way. */
  readonly reflected: readonly number[];
}

const firstOf = ({ reflected }: NumberedRequest) => Math.min(...reflected);
/** A far end that keeps no count copies the sender's number (RFC 8762 §4.3, stateless), and tells nothing of ways. */
const isCopied = (request: NumberedRequest) => request.reflected.includes(request.key);

/**
 * On which way each unanswered request was lost, as far as that can be told: a stateful reflector (RFC 8762 §4.3) numbers its answers,
 * so between two of them that came, numbers that are missing were sent and lost on the way back; the other requests in between never
 * came there. Where packets were lost on both ways between the same two answers, how many is known, and not which: the first ones are
 * said to be lost on the way there. Nothing is said where the numbers fit no such story (the far end began anew, packets changed places)
 * and of what comes before the first answer or after the last one. `requests`: by rising key, the answered ones too.
 */
export function lossWays(requests: readonly NumberedRequest[]): ReadonlyMap<number, LossWay> {
  const ways = new Map<number, LossWay>();
  const heard = new Set(requests.flatMap(({ reflected }) => reflected));
  let before = -1;
  requests.forEach((request, place) => {
    if (request.reflected.length === 0) return;
    const earlier = requests[before];
    const lost = requests.slice(before + 1, place);
    before = place;
    if (earlier === undefined || lost.length === 0 || isCopied(request) || isCopied(earlier)) return;
    // Of requests that nobody wrote down nothing is known.
    if (request.key - earlier.key !== lost.length + 1) return;
    const [from, to] = [firstOf(earlier), firstOf(request)];
    if (to - from > lost.length + heard.size + 1) return;
    let missing = 0;
    for (let number = from + 1; number < to; number += 1) if (!heard.has(number)) missing += 1;
    if (to <= from || missing > lost.length) return;
    lost.forEach(({ key }, index) => ways.set(key, index < lost.length - missing ? 'there' : 'back'));
  });
  return ways;
}
