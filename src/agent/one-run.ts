import { RUN_PROFILES, type StripData } from '@/core';
import { startRun, type RunNews } from '@/client';
import { openNodeTransport, type NodeTransportOptions } from '@/client/node';
import type { HandIn, HandInAnswer, RunGrant, RunWaiting, StartRun } from '@/wire';
import { AgentFault } from './agent-faults';
import type { ConsoleClient } from './console-client';
import type { DeviceMemory } from './known-devices';

const ALIVE_MS = 3000;

export interface OneRunOptions extends NodeTransportOptions {
  readonly order: Omit<StartRun, 'code' | 'deviceId'>;
  readonly devices: DeviceMemory;
  /** Changes where the peer is reached, for a client with something between it and the peer. */
  readonly reroute?: (grant: RunGrant) => RunGrant;
  readonly agentVersion: string;
  readonly onProgress: (strip: StripData) => void;
  readonly onWaiting: (waiting: RunWaiting) => void;
  /** Cancels the run when aborted. */
  readonly signal: AbortSignal;
}

export interface OneRun {
  readonly answer: HandInAnswer;
  readonly handIn: HandIn;
}

function handInOf(news: Exclude<RunNews, { kind: 'progress' }>, agentVersion: string): HandIn {
  const facts = {
    sameMachine: news.seen?.sameMachine ?? null,
    ipVersion: news.seen?.ipVersion ?? null,
    peerLinkBps: news.seen?.peerLinkBps ?? null,
    pageHiddenMs: 0,
    userAgent: `bent-straw-agent/${agentVersion} node/${process.versions.node}`,
  };
  if (news.kind === 'finished')
    return { outcome: 'finished', samples: news.samples, facts: { ...facts, receipt: news.receipt } };
  return { outcome: 'unfinished', reason: news.reason, samples: news.samples, facts: { ...facts, receipt: null } };
}

/** One run against a peer of the console's, handed in. Throws AgentFault when there is no result. */
export async function oneRun(console: ConsoleClient, options: OneRunOptions): Promise<OneRun> {
  const { order, devices, agentVersion, onProgress, onWaiting, signal, authenticated, reroute } = options;
  const granted = await console.startRun(order, devices, onWaiting, signal);
  const grant = reroute?.(granted) ?? granted;
  const alive = setInterval(() => void console.noteAlive(grant), ALIVE_MS);
  const handIn = await new Promise<HandIn>((resolve) => {
    const run = startRun(
      openNodeTransport(grant, { authenticated }),
      RUN_PROFILES[grant.profile],
      (news) => {
        if (news.kind === 'progress') onProgress(news.strip);
        else resolve(handInOf(news, agentVersion));
      },
      grant.pacedBps,
    );
    if (signal.aborted) run.cancel();
    signal.addEventListener('abort', () => run.cancel());
  });
  clearInterval(alive);
  const answer = await console.handIn(grant, handIn);
  if (answer.status === 'unfinished')
    throw new AgentFault('run-unfinished', { detail: `${answer.figures} ${answer.held}` });
  return { answer, handIn };
}
