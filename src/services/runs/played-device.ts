import type { StoredRun } from '@/store';
import { DEMO_AGENT_VERSION, type HandIn } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/**
 * Whether a practice line stood for the device's own link. Only the demo's devices have one, and only while the demo
 * plays them: a browser that takes the name of one of them has no such line.
 */
export async function isPlayed(context: ConsoleContext, run: StoredRun, { facts }: HandIn): Promise<boolean> {
  if (!facts?.userAgent.startsWith(`bent-straw-agent/${DEMO_AGENT_VERSION} `)) return false;
  return (await context.store.sites.device(run.deviceId))?.simulated ?? false;
}
