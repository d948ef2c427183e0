import type { PingEvent } from '../looks/read-ping';
import type { LaneEcho } from './lane';

/** An answer that takes longer than this is none, ms. */
export const ANSWER_WITHIN_MS = 10_000;

/**
 * The request of which ping says something. An answer counts for when its request was sent; that nothing has come is said when the
 * next one is sent. `nowMs`: when it was heard; the times that ping itself says are those of a clock that somebody may set.
 */
export function echoOfPing(event: PingEvent, everyMs: number, nowMs: number): LaneEcho {
  if (event.kind === 'reply') return { atMs: nowMs - event.ms, ms: event.ms <= ANSWER_WITHIN_MS ? event.ms : null };
  return { atMs: event.kind === 'silent' ? nowMs - everyMs : nowMs, ms: null };
}
