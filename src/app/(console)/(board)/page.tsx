import Link from 'next/link';
import { connection } from 'next/server';
import QRCode from 'qrcode';
import { technicianOrSignIn } from '@/app/role';
import { boardOf, joinAddresses, renewEndedCodes, theConsole, type Board } from '@/services';
import { BoardLegend } from '@/ui/board/board-legend';
import { BoardMatrix } from '@/ui/board/board-matrix';
import { BoardTray } from '@/ui/board/board-tray';
import { JoinSlip, type JoinFacts } from '@/ui/board/join-slip';
import { FollowChanges } from '@/ui/board/follow-changes';
import { RoundForm } from '@/ui/board/round-form';
import { Button } from '@/ui/parts/button';
import { queueRoundAction, withdrawTurnAction } from './actions';
import { saveOfficeAction } from '../set-up/actions';
import { FirstOffice } from '@/ui/set-up/first-office';
import { StrawPath } from '@/ui/straw/straw-path';
import { USUAL_FULL_FROM } from '@/core';

async function joinFacts(
  port: number,
  { joinCode: code, joinCodeUntilMs: untilMs }: Board['site'],
): Promise<JoinFacts> {
  const addresses = joinAddresses(port, code);
  const qrSvg = await QRCode.toString(addresses[0]!, {
    type: 'svg',
    margin: 1,
    color: { dark: '#1b2733', light: '#fffdf8' },
  });
  return { addresses, code, untilMs, qrSvg };
}

export default async function BoardPage() {
  await connection();
  await technicianOrSignIn('/');
  const context = theConsole();
  await renewEndedCodes(context);
  const found = await boardOf(context);
  if (!found.ok) return <FirstOffice save={saveOfficeAction} />;
  const board = found.value;
  const join = await joinFacts(context.port, board.site);
  return (
    <>
      <FollowChanges />
      <h1 className="sr-only">Board of {board.site.name}</h1>
      <StrawPath
        segments={board.straw}
        flowBps={board.flowBps}
        title={`The path from the devices of ${board.site.name} to the outside peer`}
      />
      <div className="mb-4 mt-3 flex items-center gap-6">
        {board.groups.length > 0 && <BoardLegend fullFrom={board.plan?.fullFrom ?? USUAL_FULL_FROM} />}
        <span className="ml-auto flex shrink-0 gap-3">
          {board.groups.length > 0 && (
            <RoundForm
              rows={board.groups.flatMap((group) => group.rows)}
              reaches={board.reaches}
              queue={queueRoundAction.bind(null, board.site.id)}
            />
          )}
          <JoinSlip join={join} trigger={<Button look="main">Join a device</Button>} />
        </span>
      </div>
      {board.groups.length === 0 ? (
        <section className="mx-auto mt-16 max-w-[34rem] text-center">
          <h2 className="text-xl font-semibold">No device has been here yet</h2>
          <p className="mt-2 text-quiet">
            Open <span className="figure text-ink">{join.addresses[0]}</span> on the first one, or press “Join a device”
            and scan.
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
      ) : (
        <BoardMatrix board={board} join={join} queue={queueRoundAction.bind(null, board.site.id)} />
      )}
      <BoardTray tray={board.tray} nowMs={board.nowMs} withdraw={withdrawTurnAction} />
    </>
  );
}
