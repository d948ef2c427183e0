import { join } from 'node:path';
import type { Command } from 'commander';
import {
  AgentFault,
  ConsoleClock,
  diskOutbox,
  doLook,
  KnownDevices,
  LaneKeeper,
  LaneShelf,
  linkTowards,
  lookAtPrograms,
  noticedPrograms,
  openProbe,
  postTo,
  readEnrolment,
  standBy,
  stateFolder,
  type StandByNews,
} from '@/agent';
import { sleep } from '@/session';
import type { StandingAnswer } from '@/wire';
import { programVersion } from '../folder/version';
import { agentHello } from './agent-hello';

function newsWords(news: StandByNews): string {
  switch (news.kind) {
    case 'standing':
      return 'The console hears this machine.';
    case 'away':
      return `The console does not answer: ${news.why}. Trying again; nothing that was measured is lost.`;
    case 'handed-in':
      return `Handed in what was left: ${news.many}.`;
    case 'asked':
      return `Asked by ${news.by}: ${news.reach}, ${news.profile}.`;
    case 'looking':
      return `Looks at ${news.at}.`;
    case 'looked':
      return `Looked: ${news.sentence}`;
    case 'measured':
      return `Measured: ${news.figures}`;
    case 'not-measured':
      return `Not measured: ${news.why}`;
  }
}

/** Each event a line with its time, for a terminal and for the journal alike. */
const tell = (news: StandByNews) => console.log(`${new Date().toISOString()} ${newsWords(news)}`);

/** Stands by at the console that this machine joined, until it is stopped. */
export async function serve(): Promise<void> {
  const enrolment = readEnrolment();
  if (enrolment === null) throw new AgentFault('not-joined');
  const { origin, name } = enrolment;
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
  const devices = new KnownDevices();
  const post = postTo(origin, name, devices);
  const clock = new ConsoleClock();
  let say = (_: StandingAnswer): void => undefined;
  const lanes = new LaneKeeper({
    ...{ open: openProbe, clock, post, shelf: new LaneShelf(join(stateFolder(), 'lanes'), origin) },
    onBeats: (beats) => say({ kind: 'beats', beats: [...beats] }),
    onNews: (sentence) => console.log(`${new Date().toISOString()} ${sentence}`),
  });
  await lanes.resume();
  await standBy({
    ...{ lanes, clock, post, onOpen: (of) => (say = of) },
    ...{ origin, agentVersion: programVersion(), hello: agentHello, onNews: tell, signal: stop.signal },
    deviceId: () => devices.of(origin, name)?.id ?? null,
    cookie: () => devices.of(origin, name)?.cookie ?? null,
    look: doLook,
    outbox: diskOutbox(join(stateFolder(), 'outbox'), origin),
    noticed: async (forMs, signal) => {
      const notice = sleep(forMs, signal);
      const busy = await lookAtPrograms(forMs, signal);
      await notice;
      return noticedPrograms(busy);
    },
    link: async () => (await linkTowards(new URL(origin).hostname)) ?? { medium: 'unknown' as const },
  }).finally(() => lanes.close());
}

export function addServeCommand(program: Command): void {
  program.command('serve').description('stand by at the console that this machine joined, until stopped').action(serve);
}
