import type { ShownAgent } from '@/services';
import { WallTime } from '../parts/wall-time';
import { RetireAgent } from './retire-agent';

interface AgentListProps {
  readonly agents: readonly ShownAgent[];
  /** The line by which an agent of another version is fetched anew. */
  readonly fetchLine: string;
  readonly retire: (deviceId: string) => Promise<string | null>;
}

function presence({ present, busy }: ShownAgent) {
  if (busy) return { word: 'measuring', look: 'bg-down border-down' };
  if (present) return { word: 'stands by', look: 'bg-ink border-ink' };
  return { word: 'silent', look: 'border-starved' };
}

/** The machines that stand by without a person. */
export function AgentList({ agents, fetchLine, retire }: AgentListProps) {
  return (
    <ul>
      {agents.map((agent) => {
        const { word, look } = presence(agent);
        return (
          <li
            key={agent.deviceId}
            className="grid gap-x-6 gap-y-0.5 border-t border-hairline py-2 md:grid-cols-[15rem_8.5rem_1fr_auto]"
          >
            <span className="min-w-0 break-words font-medium">
              {agent.name}
              {agent.spotName !== null && (
                <span className="block text-sm font-normal text-quiet">{agent.spotName}</span>
              )}
            </span>
            <span>
              <span aria-hidden className={`mr-1.5 inline-block size-2.5 rounded-full border-[1.5px] ${look}`} />
              {word}
              {!agent.present && (
                <span className="block text-sm text-quiet">
                  since <WallTime atMs={agent.seenAtMs} />
                </span>
              )}
            </span>
            <span className="min-w-0 text-sm">
              <span className="break-words">{agent.sentence}</span>
              <span className="block break-words text-quiet">
                {agent.facts.system}; agent {agent.version};{' '}
                {agent.lastRunAtMs === null ? (
                  'has not measured yet'
                ) : (
                  <>
                    measured last <WallTime atMs={agent.lastRunAtMs} />
                  </>
                )}
              </span>
              {agent.outbox > 0 && (
                <span className="block">
                  {agent.outbox} {agent.outbox === 1 ? 'result is' : 'results are'} still to be handed in.
                </span>
              )}
              {agent.clockOffMs !== null && (
                <span className="block">
                  Its clock is {Math.abs(Math.round(agent.clockOffMs / 1000))} s{' '}
                  {agent.clockOffMs > 0 ? 'ahead' : 'behind'}; times here are the console’s.
                </span>
              )}
              {agent.otherVersion && (
                <span className="block">
                  Of another version than this console; it goes on working. To bring it up to date, there:{' '}
                  <code className="figure break-all text-[0.8rem]">{fetchLine}</code>
                </span>
              )}
            </span>
            <RetireAgent name={agent.name} retire={retire.bind(null, agent.deviceId)} />
          </li>
        );
      })}
    </ul>
  );
}
