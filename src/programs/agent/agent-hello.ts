import { lookAtMachine, namedNeighbours, thisMachine } from '@/agent';
import { AGENT_PROTOCOL, type AgentHello } from '@/wire';
import { programVersion } from '../folder/version';

/** What this machine says of itself to a console. */
export async function agentHello(outbox: number): Promise<AgentHello> {
  const [facts, neighbours] = await Promise.all([lookAtMachine(), namedNeighbours()]);
  const lanes = thisMachine.keepsLanes ? ['lanes', 'stamp', 'load', 'radio', 'path-load'] : [];
  const can = [...thisMachine.looks, ...lanes, 'web', 'far-end'];
  return { version: programVersion(), protocol: AGENT_PROTOCOL, facts, can, clockMs: Date.now(), outbox, neighbours };
}
