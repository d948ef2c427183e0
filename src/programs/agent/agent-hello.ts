import { lookAtMachine, namedNeighbours } from '@/agent';
import { AGENT_PROTOCOL, type AgentHello } from '@/wire';
import { programVersion } from '../folder/version';

/** What this machine says of itself to a console. */
export async function agentHello(outbox: number): Promise<AgentHello> {
  const [facts, neighbours] = await Promise.all([lookAtMachine(), namedNeighbours()]);
  return { version: programVersion(), protocol: AGENT_PROTOCOL, facts, clockMs: Date.now(), outbox, neighbours };
}
