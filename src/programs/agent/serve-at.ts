import { join } from 'node:path';
import {
  diskOutbox,
  doLook,
  DiskShelf,
  linkTowards,
  lookAtPrograms,
  noticedPrograms,
  openProbe,
  postTo,
  standBy,
  type DeviceMemory,
  type Enrolment,
  type StandByNews,
} from '@/agent';
import type { Link } from '@/core';
import { sleep } from '@/session';
import { ConsoleClock, LaneKeeper } from '@/session/lanes';
import type { StandingAnswer } from '@/wire';
import { programVersion } from '../folder/version';
import { agentHello } from './agent-hello';
import { openFarEnd } from './open-far-end';

export interface ServeOptions {
  readonly enrolment: Enrolment;
  readonly devices: DeviceMemory;
  /** Where results and minutes of lanes are kept until the console has them. */
  readonly folder: string;
  readonly onNews: (news: StandByNews) => void;
  readonly onTrouble: (sentence: string) => void;
  readonly signal: AbortSignal;
}

/** An address of nobody (RFC 5737): packets to it would take the way to everywhere else. */
const ELSEWHERE = '192.0.2.1';

/** How this machine is connected: the link towards the console, or, where that runs on this very machine, to everywhere else. */
async function linkOfMachine(consoleHost: string): Promise<Link> {
  const towards = await linkTowards(consoleHost);
  if (towards !== null && towards.medium !== 'unknown') return towards;
  return (await linkTowards(ELSEWHERE)) ?? { medium: 'unknown' };
}

/** Stands by at the console that this machine joined, until it is stopped. Throws AgentFault when it is sent away. */
export async function serveAt({ enrolment, devices, folder, onNews, onTrouble, signal }: ServeOptions): Promise<void> {
  const { origin, name } = enrolment;
  const post = postTo(origin, name, devices);
  const clock = new ConsoleClock();
  let say: (answer: StandingAnswer) => void = () => undefined;
  const lanes = new LaneKeeper({
    ...{ open: openProbe, clock, post, shelf: new DiskShelf(join(folder, 'lanes'), origin), onNews: onTrouble },
    onBeats: (beats) => say({ kind: 'beats', beats: [...beats] }),
  });
  await lanes.resume();
  const standing = standBy({
    ...{ lanes, clock, post, onOpen: (of) => (say = of) },
    ...{ origin, agentVersion: programVersion(), hello: agentHello, onNews, signal },
    deviceId: () => devices.of(origin, name)?.id ?? null,
    cookie: () => devices.of(origin, name)?.cookie ?? null,
    look: (asked, stop, help) => doLook(asked, stop, { ...help, origin }),
    farEnd: (trust) => openFarEnd(name, folder, trust),
    outbox: diskOutbox(join(folder, 'outbox'), origin, {
      onDropped: (many) => onTrouble(`No room for more results: the ${many} oldest are gone.`),
    }),
    noticed: async (forMs, stop) => {
      const notice = sleep(forMs, stop);
      const busy = await lookAtPrograms(forMs, stop);
      await notice;
      return noticedPrograms(busy);
    },
    link: () => linkOfMachine(new URL(origin).hostname),
  });
  try {
    await standing;
  } finally {
    await lanes.close();
  }
}
