import type { Logger } from 'pino';
import type { OnPeerEvent } from '@/peer';
import { LineBudget } from './line-budget';

/** Writes down what happens at a peer and its door. What anybody can cause is written so often a minute and no more. */
export function peerLog(log: Logger, nowMs: () => number): OnPeerEvent {
  const budget = new LineBudget(nowMs, (count) => log.warn({ count }, 'more of that in this minute'));
  return (event) => {
    switch (event.kind) {
      case 'request': {
        const { request } = event;
        if (request.status >= 500) log.error(request, 'request failed');
        else if (request.status < 400) log.debug(request, 'request');
        else if (budget.take()) log.info(request, 'request refused');
        return;
      }
      case 'console-away':
        if (budget.take()) log.error({ id: event.id }, 'the console did not answer');
        return;
      case 'ticket-refused':
        if (budget.take()) log.warn({ refusal: event.code, address: event.address }, 'ticket refused');
        return;
      case 'session-opened':
        return log.info({ run: event.run, session: event.session, address: event.address }, 'session opened');
      case 'session-ended': {
        const { run, session, tookMs, downBytes, upBytes } = event;
        return log.info({ run, session, tookMs, downBytes, upBytes }, 'session ended');
      }
    }
  };
}
