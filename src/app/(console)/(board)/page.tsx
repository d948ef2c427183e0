import { connection } from 'next/server';
import { joinFactsOf } from '@/app/join-facts';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { BOARD_AGES, boardOf, theConsole, type BoardFilter } from '@/services';
import { BoardFilters } from '@/ui/board/board-filters';
import { boardHref } from '@/ui/board/board-href';
import { BoardLegend } from '@/ui/board/board-legend';
import { BoardPlaces } from '@/ui/board/board-places';
import { BoardTray } from '@/ui/board/board-tray';
import { JoinSlip } from '@/ui/board/join-slip';
import { drawnBoard } from '@/ui/board/drawn-cell';
import { FollowChanges } from '@/ui/board/follow-changes';
import { RoundForm } from '@/ui/board/round-form';
import { Button } from '@/ui/parts/button';
import { openHuntAction } from '../hunt/actions';
import {
  huntFindingAction,
  letBeAction,
  openAgainAction,
  queueRoundAction,
  seeComplaintAction,
  withdrawAllAction,
  withdrawTurnAction,
} from './actions';
import { saveOfficeAction } from '../set-up/actions';
import { SilentNow } from '@/ui/board/silent-now';
import { WhatStandsOut } from '@/ui/findings/what-stands-out';
import { FirstOffice } from '@/ui/set-up/first-office';
import { StrawPath } from '@/ui/straw/straw-path';
import { BLOAT_RATINGS, LINK_KINDS, REACHES, SEGMENT_KINDS, USUAL_FULL_FROM, VERDICT_WORDS } from '@/core';
import { Link } from '@/ui/parts/link';

type Query = Record<string, string | string[] | undefined>;

/** What the board is narrowed to by its address; anything that is not known is passed over. */
function filterOf(query: Query): BoardFilter {
  const one = (name: string) => (typeof query[name] === 'string' && query[name] !== '' ? query[name] : undefined);
  return {
    text: one('text')?.slice(0, 80),
    spot: one('spot'),
    linkKind: LINK_KINDS.find((kind) => kind === one('link')),
    reach: REACHES.find((reach) => reach === one('reach')),
    segment: SEGMENT_KINDS.find((kind) => kind === one('segment')),
    verdict: VERDICT_WORDS.find((word) => word === one('verdict')),
    rating: BLOAT_RATINGS.find((word) => word === one('delay')),
    age: BOARD_AGES.find((age) => age === one('age')),
  };
}

export default async function BoardPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  await connection();
  const query = await searchParams;
  const filter = filterOf(query);
  await technicianOrSignIn('/');
  const context = theConsole();
  const found = await boardOf(context, await chosenSiteId(), filter);
  if (!found.ok) return <FirstOffice save={saveOfficeAction} />;
  const board = found.value;
  const join = await joinFactsOf(context.port, board.site);
  const drawn = drawnBoard(board);
  return (
    <>
      <FollowChanges />
      <h1 className="sr-only">Board of {board.site.name}</h1>
      <SilentNow silent={board.silent} />
      <WhatStandsOut
        out={board.out}
        nowMs={board.nowMs}
        deviceCount={board.deviceCount}
        letBe={letBeAction}
        openAgain={openAgainAction}
        hunt={huntFindingAction}
        see={seeComplaintAction}
        huntDevice={openHuntAction.bind(null, board.site.id)}
      />
      <div className="max-md:hidden">
        <StrawPath
          segments={board.straw}
          flowBps={board.flowBps}
          title={`The path from the devices of ${board.site.name} to the outside peer`}
          hrefOf={({ kind }) => boardHref({ ...filter, segment: kind === filter.segment ? undefined : kind })}
          chosen={filter.segment}
        />
      </div>
      {board.facts !== null && (
        <div className="mt-1 text-sm text-quiet">
          {board.facts.sentences.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          {board.facts.runId !== null && (
            <Link className="text-ink underline underline-offset-4" href={`/runs/${board.facts.runId}`}>
              the run that proves most
            </Link>
          )}
        </div>
      )}
      <div className="mb-2 mt-3 flex flex-wrap items-end gap-x-6 gap-y-2">
        {board.deviceCount > 0 && (
          <div className="max-md:hidden">
            <BoardFilters spots={board.spots} columns={board.allColumns} chosen={filter} />
          </div>
        )}
        <span className="ml-auto flex shrink-0 gap-3">
          {board.deviceCount > 0 && (
            <RoundForm
              rows={board.devices}
              reaches={board.reaches}
              queue={queueRoundAction.bind(null, board.site.id)}
              opened={query.do === 'round'}
            />
          )}
          <JoinSlip join={join} trigger={<Button look="main">Join a device</Button>} />
        </span>
      </div>
      {!board.measured && (
        <section className={`mx-auto max-w-[34rem] text-center ${board.deviceCount === 0 ? 'mt-16' : 'my-8'}`}>
          <h2 className="text-xl font-semibold">
            {board.deviceCount === 0 ? 'No device has been here yet' : 'Nothing has been measured here yet'}
          </h2>
          <p className="mt-2 text-quiet">
            Open <span className="figure text-ink">{join.addresses[0]}</span> on the first one, or press “Join a device”
            and scan.
            {board.reaches.length === 0 && (
              <>
                {' '}
                Before anything can be measured here it needs a peer inside or outside:{' '}
                <Link className="text-ink underline" href="/set-up">
                  add one in the set-up
                </Link>
                .
              </>
            )}
            {board.line === null && (
              <>
                {' '}
                To have runs held against the contract,{' '}
                <Link className="text-ink underline" href="/set-up">
                  enter the line and its plan
                </Link>
                .
              </>
            )}
          </p>
        </section>
      )}
      {board.deviceCount === 0 ? null : board.groups.length === 0 ? (
        <p className="py-10 text-quiet">
          Nothing here fits what the board is narrowed to.{' '}
          <Link href="/" className="text-ink underline underline-offset-4">
            Show all
          </Link>
        </p>
      ) : (
        <>
          <BoardPlaces board={drawn} join={join} queue={queueRoundAction.bind(null, board.site.id)} />
          <div className="mt-4">
            <BoardLegend fullFrom={board.plan?.fullFrom ?? USUAL_FULL_FROM} />
          </div>
        </>
      )}
      <BoardTray
        tray={board.tray}
        nowMs={board.nowMs}
        withdraw={withdrawTurnAction}
        withdrawAll={withdrawAllAction.bind(
          null,
          board.tray
            .filter(({ state }) => state.status === 'waiting' || state.status === 'asked')
            .map(({ turnId }) => turnId),
        )}
      />
    </>
  );
}
