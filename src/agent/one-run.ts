import { downloadOnly, RUN_PROFILES, type StripData } from '@/core';
import { startRun, type RunNews } from '@/client';
import { openNodeTransport, openWebTransport, type NodeTransportOptions } from '@/client/node';
import { RunSession, type Measure, type Outbox, type Post, type SessionState } from '@/session';
import type { HandIn, HandInAnswer, RunGrant, RunWaiting, StartRun } from '@/wire';
import { AgentFault } from './agent-faults';

/** A console that takes nothing for so long is left alone; the result stays in the outbox, ms. */
const HAND_IN_PATIENCE_MS = 60_000;

export interface OneRunOptions extends NodeTransportOptions {
  readonly order: StartRun;
  readonly origin: string;
  readonly post: Post;
  readonly outbox: Outbox;
  /** Changes where the peer is reached, for a client with something between it and the peer. */
  readonly reroute?: (grant: RunGrant) => RunGrant;
  readonly agentVersion: string;
  readonly onProgress: (strip: StripData) => void;
  readonly onWaiting: (waiting: RunWaiting) => void;
  /** Cancels the run, or gives the turn back, when aborted. */
  readonly signal: AbortSignal;
  readonly handInPatienceMs?: number;
}

export interface OneRun {
  readonly answer: HandInAnswer;
  readonly handIn: HandIn;
}

/** Whoever owns a web server can see who loads it, and whom to write to (RFC 9110 §10.1.5). */
const webUserAgent = (agentVersion: string, contact: string) => `bent-straw-agent/${agentVersion} (${contact})`;

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

function measuring({ authenticated, reroute, agentVersion }: OneRunOptions): Measure {
  return (granted, signal, onProgress) =>
    new Promise<HandIn>((resolve) => {
      const grant = reroute?.(granted) ?? granted;
      const run = startRun(
        grant.web === null
          ? openNodeTransport(grant, { authenticated })
          : openWebTransport(grant.web, { userAgent: webUserAgent(agentVersion, grant.web.contact) }),
        grant.web === null
          ? RUN_PROFILES[grant.profile]
          : downloadOnly(RUN_PROFILES[grant.profile], grant.web.mostBytes),
        (news) => {
          if (news.kind === 'progress') onProgress(news.strip);
          else resolve(handInOf(news, agentVersion));
        },
        { pacedBps: grant.pacedBps, leastDirectionMs: grant.leastDirectionMs },
      );
      if (signal.aborted) run.cancel();
      signal.addEventListener('abort', () => run.cancel());
    });
}

/** What a session that ended came to. Throws AgentFault when there is no result. */
function resultOf(state: SessionState | null, origin: string, away: string | null): OneRun {
  switch (state?.status) {
    case 'done':
      if (state.answer.status === 'unfinished')
        throw new AgentFault('run-unfinished', { detail: `${state.answer.figures} ${state.answer.held}` });
      return { answer: state.answer, handIn: state.handIn };
    case 'handing-in':
      throw new AgentFault(state.kept ? 'hand-in-kept' : 'hand-in-lost', { why: away ?? 'it was stopped' });
    case 'refused': {
      const { code, detail } = state.problem;
      if (code === 'console-unreachable' || code === 'console-odd') throw new AgentFault(code, { origin });
      throw new AgentFault('console-refused', { detail, refusal: code });
    }
    case 'ready':
    case 'asking':
    case 'waiting':
    case 'measuring':
    case undefined:
      throw new AgentFault('run-unfinished', { detail: 'It was cancelled while it waited for its turn.' });
  }
}

/**
 * One run against a peer of the console's, handed in. A result that the console does not take in a minute stays in the
 * outbox and is handed in at the next start. Throws AgentFault when there is no result.
 */
export async function oneRun(options: OneRunOptions): Promise<OneRun> {
  const { order, post, outbox, onProgress, onWaiting, signal, origin } = options;
  let away: string | null = null;
  let patience: NodeJS.Timeout | undefined;
  const session: RunSession = new RunSession({
    post,
    outbox,
    measure: measuring(options),
    onState: (state) => {
      if (state.status === 'waiting') onWaiting(state.waiting);
      if (state.status === 'measuring' && state.strip !== null) onProgress(state.strip);
      if (state.status !== 'handing-in') return;
      away = state.away;
      patience ??= setTimeout(() => session.close(), options.handInPatienceMs ?? HAND_IN_PATIENCE_MS);
    },
  });
  const abort = () => {
    session.giveUp();
    session.cancel();
  };
  if (signal.aborted) abort();
  signal.addEventListener('abort', abort);
  const ended = await session.run(order);
  clearTimeout(patience);
  signal.removeEventListener('abort', abort);
  return resultOf(ended, origin, away);
}
