import { readStandingAnswer } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { deviceOfCookie } from '../access/device-cookie';
import { refuseTurn } from './queue-turns';
import type { StandingLink } from '../console/standing-devices';
import { moveQueue } from './turn-desk';

/** One device that stands by, as its connection sees it. */
export interface StandingSession {
  /** What the device said. */
  hear(text: unknown): Promise<void>;
  leave(): Promise<void>;
}

/** Lets the device of a cookie stand by; null when the cookie proves none. */
export async function standBy(
  context: ConsoleContext,
  cookie: string | null,
  link: StandingLink,
): Promise<StandingSession | null> {
  const device = await deviceOfCookie(context, cookie);
  if (device === null) return null;
  const leave = context.standing.stand(device.id, link);
  context.changes.tell('presence');
  await moveQueue(context);
  return {
    hear: async (text) => {
      const answer = readStandingAnswer(text);
      if (answer !== null) await refuseTurn(context, device.id, answer.turnId);
    },
    leave: async () => {
      leave();
      context.changes.tell('presence');
      await moveQueue(context);
    },
  };
}
