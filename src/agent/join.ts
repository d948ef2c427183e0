import type { Link } from '@/core';
import { replyOf, type Post } from '@/session';
import { joinedAgentSchema, type AgentHello, type JoinAgent, type JoinedAgent } from '@/wire';
import { AgentFault } from './agent-faults';

export interface JoinOptions {
  readonly origin: string;
  readonly post: Post;
  readonly code: string;
  readonly name: string;
  readonly spotName: string;
  readonly link: Link;
  readonly hello: AgentHello;
}

/** Enrols this machine at a console. Throws AgentFault with what the console said where it does not want it. */
export async function joinConsole({ origin, post, ...order }: JoinOptions): Promise<JoinedAgent> {
  const reply = await replyOf(post('/api/v1/agents', order satisfies JoinAgent));
  switch (reply.kind) {
    case 'away':
      throw new AgentFault('console-unreachable', { origin });
    case 'odd':
      throw new AgentFault('console-odd', { origin });
    case 'refused':
      throw new AgentFault('console-refused', { detail: reply.refusal.detail, refusal: reply.refusal.code });
    case 'answered': {
      const joined = joinedAgentSchema.safeParse(reply.body);
      if (!joined.success) throw new AgentFault('console-odd', { origin });
      return joined.data;
    }
  }
}
