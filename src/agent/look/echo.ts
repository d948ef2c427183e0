import type { EchoAsked, EchoFound, PingEvent } from '@/core';
import { ping } from './ping-process';

/** Between two requests, s: what the kernel lets everybody send. */
const EVERY_S = 0.2;
const PATIENCE_S = 2;

/** The round trip of each of `count` requests, by the number that ping gave them; null: nothing came back. */
export function rttsOf(events: readonly PingEvent[], count: number): (number | null)[] {
  const first = new Map<number, number>();
  for (const event of events) if (event.kind === 'reply' && !first.has(event.seq)) first.set(event.seq, event.ms);
  return Array.from({ length: count }, (_, place) => first.get(place + 1) ?? null);
}

/** Echo requests to a host, five a second. Throws LookFault. */
export async function lookAtEcho({ target, count }: EchoAsked, signal: AbortSignal): Promise<EchoFound> {
  const { events, address } = await ping(target, ['-i', `${EVERY_S}`, '-c', `${count}`, '-W', `${PATIENCE_S}`], signal);
  const refused = events.find((event) => event.kind === 'refused');
  return {
    ...{ what: 'echo', target, address },
    rttsMs: rttsOf(events, count),
    duplicates: events.filter((event) => event.kind === 'reply' && event.duplicate).length,
    refusal: refused?.why ?? null,
  };
}
