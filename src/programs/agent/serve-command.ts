import type { Command } from 'commander';
import { AgentFault, KnownDevices, readEnrolment, stateFolder, type StandByNews } from '@/agent';
import { serveAt } from './serve-at';

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
    case 'serving':
      return `Serves as the far end of a run, on port ${news.port}.`;
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
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
  await serveAt({
    ...{ enrolment, devices: new KnownDevices(), folder: stateFolder(), onNews: tell, signal: stop.signal },
    onTrouble: (sentence) => console.log(`${new Date().toISOString()} ${sentence}`),
  });
}

export function addServeCommand(program: Command): void {
  program.command('serve').description('stand by at the console that this machine joined, until stopped').action(serve);
}
