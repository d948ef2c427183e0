import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { handedOrigin } from '@/app/visitor';
import { DEVICE_KINDS } from '@/core';
import { agentsPageOf, schedulesPageOf, siteOf, theConsole, type AgentsPage, type ConsoleContext } from '@/services';
import { AgentList } from '@/ui/agent/agent-list';
import { BetweenForm } from '@/ui/agent/between-form';
import { fetchLineOf } from '@/ui/agent/fetch-line';
import { JoinLines } from '@/ui/agent/join-lines';
import { LineBudgets } from '@/ui/agent/line-budgets';
import { LinkChangeList } from '@/ui/agent/link-change-list';
import { NeighbourList } from '@/ui/agent/neighbour-list';
import { ScheduleForm } from '@/ui/agent/schedule-form';
import { ScheduleList } from '@/ui/agent/schedule-list';
import { FollowChanges } from '@/ui/board/follow-changes';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import {
  changeSeenAction,
  estimateScheduleAction,
  makeScheduleAction,
  measureBetweenAction,
  neighboursKnownAction,
  pauseScheduleAction,
  removeScheduleAction,
  retireAgentAction,
  setBudgetAction,
} from './actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Agents' };

/** Whom a schedule can be for: agents first, then their spots and kinds, then devices that stand by now. */
async function whoChoices(
  context: ConsoleContext,
  siteId: string,
  { agents }: AgentsPage,
): Promise<(readonly [string, string])[]> {
  const [devices, spots] = await Promise.all([
    context.store.sites.devicesOf(siteId),
    context.store.sites.spotsOf(siteId),
  ]);
  const isAgent = new Set(agents.map(({ deviceId }) => deviceId));
  const own = devices.filter(({ id }) => isAgent.has(id));
  const [spotIds, kinds] = [new Set(own.map(({ spotId }) => spotId)), new Set(own.map(({ kind }) => kind))];
  const standing = devices.filter(({ id }) => !isAgent.has(id) && context.standing.isPresent(id));
  return [
    ...agents.map(({ deviceId, name }) => [`device ${deviceId}`, name] as const),
    ['office', 'all agents of the office'] as const,
    ...spots
      .filter(({ id }) => spotIds.has(id))
      .map(({ id, name }) => [`spot ${id}`, `all agents at ${name}`] as const),
    ...DEVICE_KINDS.filter((kind) => kinds.has(kind)).map(
      (kind) => [`device-kind ${kind}`, `all agents of the kind ${kind}`] as const,
    ),
    ...standing.map(({ id, name }) => [`device ${id}`, `${name}, while its page stands by`] as const),
  ];
}

/** What measures without a person: the machines, when, and how much. */
export default async function AgentPlace() {
  await connection();
  await technicianOrSignIn('/agent');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const [page, { schedules, budgets }, origin] = await Promise.all([
    agentsPageOf(context, site.id),
    schedulesPageOf(context, site.id),
    handedOrigin(),
  ]);
  const who = await whoChoices(context, site.id, page);
  const { agents, changes, neighbours, farEnds } = page;
  return (
    <>
      <FollowChanges />
      <h1 className="text-xl font-semibold">Agents</h1>
      <p className="mb-3 mt-1 max-w-[46rem] text-quiet">
        Machines that stand by without a person: a small box in the corner measures as often as you say, takes its turn
        like everybody, and keeps what it measured while the console is away.{' '}
        <Link href="/told" className="text-ink underline underline-offset-4">
          Who is told when something changes
        </Link>
        {', '}
        <Link href="/look" className="text-ink underline underline-offset-4">
          look from one of them
        </Link>
      </p>
      {agents.length === 0 ? (
        <p>None yet. Two lines on a machine that is always on make it one:</p>
      ) : (
        <AgentList agents={agents} fetchLine={fetchLineOf(origin)} retire={retireAgentAction} />
      )}
      {changes.length > 0 && (
        <section aria-label="What changed" className="mt-6">
          <h2 className="font-semibold">What changed of their links</h2>
          <LinkChangeList changes={changes} seen={changeSeenAction} />
        </section>
      )}
      {agents.length === 0 && (
        <div className="mt-3">
          <JoinLines origin={origin} code={site.joinCode} />
        </div>
      )}
      {farEnds.length > 1 && farEnds[0]!.isHere && (
        <section aria-label="Between two machines" className="mt-8" id="between">
          <h2 className="font-semibold">Between two machines</h2>
          <p className="mb-2 max-w-[46rem] text-sm text-quiet">
            The second serves as the far end for that run and is closed again after it. Held against the slower of both
            links, or of both lines where it stands in another office.
          </p>
          <BetweenForm from={farEnds.filter(({ isHere }) => isHere)} to={farEnds} measure={measureBetweenAction} />
        </section>
      )}
      <section aria-label="Schedules" className="mt-8">
        <h2 className="font-semibold">Schedules</h2>
        {schedules.length === 0 ? (
          <p className="text-quiet">
            None yet. {agents.length === 0 && 'They can be made before there is an agent, and begin with the first.'}
          </p>
        ) : (
          <ScheduleList schedules={schedules} pause={pauseScheduleAction} remove={removeScheduleAction} />
        )}
        <details className="mt-3" open={agents.length > 0 && schedules.length === 0}>
          <summary className="font-semibold">Make one</summary>
          <div className="mt-2">
            <p className="mb-2 text-sm text-quiet">
              Hours are those of{' '}
              {site.timeZone ?? `${Intl.DateTimeFormat().resolvedOptions().timeZone}, this console’s`}. The office’s own
              are chosen in the set-up.
            </p>
            <ScheduleForm
              who={who}
              estimate={estimateScheduleAction.bind(null, site.id)}
              make={makeScheduleAction.bind(null, site.id)}
            />
          </div>
        </details>
      </section>
      {budgets.length > 0 && (
        <section aria-label="Data volume" className="mt-8">
          <h2 className="font-semibold">Data volume of the lines</h2>
          <p className="mb-2 max-w-[46rem] text-sm text-quiet">
            A measurement is traffic. At the limit scheduled runs wait for the next month; what a person starts goes on.
          </p>
          <LineBudgets budgets={budgets} set={(lineId) => setBudgetAction.bind(null, lineId)} />
        </section>
      )}
      {neighbours.length > 0 && (
        <section aria-label="Who else is here" className="mt-8">
          <h2 className="font-semibold">Who else is on the network</h2>
          <NeighbourList neighbours={neighbours} known={neighboursKnownAction.bind(null, site.id)} />
        </section>
      )}
      {agents.length > 0 && (
        <section aria-label="Add a machine" className="mt-8">
          <h2 className="mb-1 font-semibold">Add a machine</h2>
          <JoinLines origin={origin} code={site.joinCode} />
        </section>
      )}
    </>
  );
}
