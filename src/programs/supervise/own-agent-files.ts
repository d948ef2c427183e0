import { hostname } from 'node:os';
import { join } from 'node:path';
import { keepEnrolment, KnownDevices } from '@/agent';
import { ownAgentOf, type ConsoleContext } from '@/services';

export const OWN_AGENT_DEVICES = 'agent-devices.json';
const TRY_EVERY_MS = 2000;

/**
 * Puts down for the agent of this machine who it is, as soon as there is an office. Returns what ends the waiting.
 * `origin`: where it reaches the console.
 */
export function keepOwnAgent(context: ConsoleContext, folder: string, origin: string): () => void {
  let trying = false;
  const attempt = async () => {
    const own = await ownAgentOf(context, hostname());
    if (own === null) return;
    new KnownDevices(join(folder, OWN_AGENT_DEVICES)).remember(origin, own.name, {
      id: own.deviceId,
      cookie: own.cookie,
    });
    keepEnrolment({ origin, name: own.name, officeName: own.officeName }, folder);
    clearInterval(timer);
  };
  const timer = setInterval(() => {
    if (trying) return;
    trying = true;
    attempt()
      .catch((error: unknown) => context.log.error({ err: error }, 'own agent'))
      .finally(() => (trying = false));
  }, TRY_EVERY_MS);
  return () => clearInterval(timer);
}
