import type { Device } from '@/store';
import { readStandingAnswer, type AgentHello } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { deviceOfCookie } from '../access/device-cookie';
import { refuseTurn } from './queue-turns';
import type { StandingLink } from '../console/standing-devices';
import { moveQueue } from './turn-desk';
import { isUnderstood, noteHello } from '../agents/agents';
import { beginLanes, resumePageLanes } from '../lanes/lanes';
import { tellBeats } from '../lanes/tell-beats';

/** One device that stands by, as its connection sees it. */
export interface StandingSession {
  /** What the device said. */
  hear(text: unknown): Promise<void>;
  leave(): Promise<void>;
}

/** An agent says what it is; one that speaks otherwise is sent away, and told why. */
async function greet(context: ConsoleContext, device: Device, hello: AgentHello, link: StandingLink): Promise<void> {
  if (isUnderstood(hello)) {
    await noteHello(context, device, hello);
    return beginLanes(context, device, hello, link.consoleHost ?? null);
  }
  link.send({ kind: 'dismissed', reason: 'other-version' });
  link.close();
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
  await resumePageLanes(context, device.id);
  return {
    hear: async (text) => {
      const answer = readStandingAnswer(text);
      if (answer?.kind === 'refuse') await refuseTurn(context, device.id, answer.turnId);
      else if (answer?.kind === 'hello') await greet(context, device, answer.hello, link);
      else if (answer?.kind === 'serving') context.farEnds.hear(device.id, answer);
      else if (answer?.kind === 'beats') await tellBeats(context, device, answer.beats);
    },
    leave: async () => {
      leave();
      await context.store.agents.seen(device.id, context.wallMs());
      context.changes.tell('presence');
      await moveQueue(context);
    },
  };
}
