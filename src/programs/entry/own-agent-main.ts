import '../agent/small-schemas';
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { AgentFault, KnownDevices, readEnrolment } from '@/agent';
import { sleep } from '@/session';
import { serveAt } from '../agent/serve-at';
import { OWN_AGENT_DEVICES } from '../supervise/own-agent-files';
import { linkToLauncher } from '../supervise/child-link';

/** The console's own machine as its agent: `own-agent-main.js FOLDER`, where the console puts down who it is. */
const [folder] = process.argv.slice(2) as [string];
const LOOK_EVERY_MS = 1000;
const stop = new AbortController();
const done = serve();
const launcher = linkToLauncher(() => {
  stop.abort();
  return done;
});
launcher.ready();

/** Stands by from the moment at which there is an office; one that a technician retired goes on waiting. */
async function serve(): Promise<void> {
  while (!stop.signal.aborted) {
    const enrolment = readEnrolment(folder);
    if (enrolment === null) {
      await sleep(LOOK_EVERY_MS, stop.signal);
      continue;
    }
    const devices = new KnownDevices(join(folder, OWN_AGENT_DEVICES));
    const quiet = () => undefined;
    await serveAt({ enrolment, devices, folder, signal: stop.signal, onNews: quiet, onTrouble: console.error }).catch(
      (error: unknown) => {
        if (!(error instanceof AgentFault)) throw error;
        const file = join(folder, 'agent.json');
        if (existsSync(file)) rmSync(file);
      },
    );
  }
}
