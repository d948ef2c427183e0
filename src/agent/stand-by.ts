import { lookAskedWords, lookSentence, type Link } from '@/core';
import { deliverLeft, type Outbox, type Post } from '@/session';
import type { ConsoleClock, LaneKeeper } from '@/session/lanes';
import type { AgentHello, StandingAnswer, StandingOrder } from '@/wire';
import { AgentFault } from './agent-faults';
import { answerLook, LookFault, type TakeLook } from './look';
import { FarEndKeeper, type OpenFarEnd } from './far-end-keeper';
import { oneRun } from './one-run';
import { keepStandingLine, type Dismissal } from './standing-line';
import { tidyMemory } from './tidy-memory';

type Asked = Extract<StandingOrder, { kind: 'asked' }>;
type LookOrder = Extract<StandingOrder, { kind: 'look' }>;

/** What an agent that stands by tells whoever reads its output, an event each. */
export type StandByNews =
  | { readonly kind: 'standing' }
  | { readonly kind: 'away'; readonly why: string }
  | { readonly kind: 'handed-in'; readonly many: number }
  | { readonly kind: 'asked'; readonly by: string; readonly reach: string; readonly profile: string }
  | { readonly kind: 'serving'; readonly port: number }
  | { readonly kind: 'looking'; readonly at: string }
  | { readonly kind: 'looked'; readonly sentence: string }
  | { readonly kind: 'measured'; readonly figures: string }
  | { readonly kind: 'not-measured'; readonly why: string };

export interface StandByOptions {
  readonly origin: string;
  readonly deviceId: () => string | null;
  readonly cookie: () => string | null;
  readonly post: Post;
  readonly outbox: Outbox;
  readonly hello: (outbox: number) => Promise<AgentHello>;
  readonly link: () => Promise<Link>;
  /** Waits so long, ms, and tells what was going on meanwhile, a sentence each. */
  readonly noticed: (forMs: number, signal: AbortSignal) => Promise<string[]>;
  /** Looks at something that the console asks about. */
  readonly look: TakeLook;
  /** What keeps lanes, and the clock that it goes by; absent: this machine keeps none. */
  readonly lanes?: Pick<LaneKeeper, 'set' | 'handIn'>;
  readonly clock?: Pick<ConsoleClock, 'learn'>;
  /** Hears how to say something to the console, each time that the line to it was opened. */
  readonly onOpen?: (say: (answer: StandingAnswer) => void) => void;
  /** Opens a far end on this machine for a run of another one; absent: this machine is none. */
  readonly farEnd?: OpenFarEnd;
  readonly agentVersion: string;
  readonly onNews: (news: StandByNews) => void;
  readonly signal: AbortSignal;
  /** So often what was left is handed in again, ms. */
  readonly everyMs?: number;
}

/** What has ended a moment ago is let go by then. */
const TIDY_AFTER_MS = 5000;
/** What the first time is let go of is given back by the second. */
const TIDY_TIMES = 2;
const EVERY_MS = 20_000;

const SENT_AWAY: Readonly<Record<Dismissal, string>> = {
  removed: 'The technician retired this agent. Join again if it is to go on.',
  elsewhere:
    'Another machine stands by as this one, with a copy of its state. Let one of them join under another name.',
  'other-version':
    'This agent and the console do not understand each other any more. Fetch the agent from the console anew, then start it again.',
  'not-joined': 'The console does not know this machine any more. Join again with the code that the board shows.',
};

/**
 * Stands by at a console until it is aborted: measures when it is asked, hands in what it has, comes back by itself when the
 * console was away. Throws AgentFault when the console sends this machine away.
 */
export async function standBy(options: StandByOptions): Promise<void> {
  const { origin, post, outbox, onNews, signal, everyMs = EVERY_MS } = options;
  const withdrawn = new Set<string>();
  let current: { readonly turnId: string; readonly stop: AbortController } | null = null;
  let standing = false;
  const looks = new Map<string, AbortController>();
  let say: (answer: StandingAnswer) => void = () => undefined;
  const farEnds = new FarEndKeeper(options.farEnd ?? null, (port) => onNews({ kind: 'serving', port }));

  const measure = async ({ turnId, by, reach, profile, inMs, pacedMbps = null }: Asked) => {
    const stop = new AbortController();
    current = { turnId, stop };
    // Taken off again: an agent lives for years.
    const stopToo = () => stop.abort();
    signal.addEventListener('abort', stopToo);
    onNews({ kind: 'asked', by, reach, profile });
    try {
      // Nobody sits here who could say not now; what is asked of others at the same time begins for all at once.
      const noticed = await options.noticed(inMs, stop.signal);
      if (withdrawn.has(turnId) || stop.signal.aborted) return;
      const { answer } = await oneRun({
        ...{ origin, post, outbox, signal: stop.signal, agentVersion: options.agentVersion, authenticated: true },
        order: {
          // What the technician calls it, and where he says that it stands, is his to say.
          ...{ code: null, deviceId: options.deviceId(), deviceName: null, deviceKind: null, spotName: null },
          ...{ link: await options.link(), reach, profile, told: [], noticed, turnId, holdMs: 0 },
          ...{ loadsWeb: true, pacedMbps },
        },
        onProgress: () => undefined,
        onWaiting: () => undefined,
      });
      onNews({ kind: 'measured', figures: `${answer.figures} ${answer.held}`.trim() });
    } catch (error) {
      if (!(error instanceof AgentFault)) throw error;
      onNews({ kind: 'not-measured', why: error.message });
    } finally {
      signal.removeEventListener('abort', stopToo);
      withdrawn.delete(turnId);
      current = null;
      tidied = 0;
      tidying.refresh();
    }
  };

  const look = async ({ lookId, asked, login = null, far = null }: LookOrder) => {
    if (looks.has(lookId)) return;
    const stop = new AbortController();
    // Each would see the other; the console asks for one thing at a time, but may have been told late.
    const isFree = current === null && looks.size === 0;
    const stopToo = () => stop.abort();
    signal.addEventListener('abort', stopToo);
    looks.set(lookId, stop);
    onNews({ kind: 'looking', at: lookAskedWords(asked) });
    try {
      const take: TakeLook = isFree ? options.look : () => Promise.reject(new LookFault('look-busy'));
      const outcome = await answerLook({ lookId, asked, login, far }, { take, post, signal: stop.signal });
      onNews({ kind: 'looked', sentence: outcome.ok ? lookSentence(outcome.found, null) : outcome.sentence });
    } finally {
      signal.removeEventListener('abort', stopToo);
      looks.delete(lookId);
    }
  };

  const onOrder = (order: StandingOrder) => {
    if (order.kind === 'lanes') {
      options.clock?.learn(order.nowMs);
      options.lanes?.set(order.lanes, order.live);
    }
    if (order.kind === 'serve')
      void farEnds.serve(order).then((at) => say({ kind: 'serving', serveId: order.serveId, at }));
    if (order.kind === 'serve-over') farEnds.end(order.serveId);
    if (order.kind === 'look') void look(order);
    if (order.kind === 'look-withdrawn') looks.get(order.lookId)?.abort();
    if (order.kind === 'asked' && current === null) void measure(order);
    if (order.kind === 'withdrawn') {
      withdrawn.add(order.turnId);
      if (current?.turnId === order.turnId) current.stop.abort();
    }
  };

  let tidied = 0;
  const tidying = setTimeout(() => {
    if (current !== null) return;
    tidyMemory();
    tidied += 1;
    if (tidied < TIDY_TIMES) tidying.refresh();
  }, TIDY_AFTER_MS);
  tidying.unref();

  const handInLeft = async () => {
    if (!standing || current !== null) return;
    const { taken } = await deliverLeft(post, outbox);
    if (taken > 0) onNews({ kind: 'handed-in', many: taken });
  };
  const handingIn = setInterval(() => void handInLeft(), everyMs);

  try {
    const dismissed = await keepStandingLine({
      ...{ origin, cookie: options.cookie, onOrder, signal },
      onOpen: (of) => {
        say = of;
        options.onOpen?.(of);
      },
      hello: async () => options.hello((await outbox.all()).length),
      onHeard: (heard, why) => {
        if (heard !== standing) onNews(heard ? { kind: 'standing' } : { kind: 'away', why });
        standing = heard;
        if (!heard) return;
        void handInLeft();
        void options.lanes?.handIn();
      },
    });
    if (dismissed !== null) throw new AgentFault('sent-away', { why: SENT_AWAY[dismissed] });
  } finally {
    farEnds.endAll();
    clearInterval(handingIn);
    clearTimeout(tidying);
  }
}
