import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { comparisonsOf, ledgerFrameOf, siteOf, theConsole } from '@/services';
import { WallTime } from '@/ui/parts/wall-time';
import { FirstOffice } from '@/ui/set-up/first-office';
import { AlternationForm } from '@/ui/side/alternation-form';
import { TrayForm } from '@/ui/side/tray-form';
import { saveOfficeAction } from '../set-up/actions';
import { makeComparisonAction, startAlternationAction } from './actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Side by side' };

const TWO_EMPTY = [0, 1].map(() => ({ name: '', query: '', runIds: null }));

/** What is held against what, and what was before. */
export default async function SidePlace() {
  await connection();
  await technicianOrSignIn('/side');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const [frame, kept, devices, peers, alternations] = await Promise.all([
    ledgerFrameOf(context, site.id),
    comparisonsOf(context, site.id),
    context.store.sites.devicesOf(site.id),
    context.store.sites.peersOf(site.id),
    context.store.alternations.ofSite(site.id),
  ]);
  const open = alternations.filter(({ state }) => state === 'going' || state === 'held');
  return (
    <>
      <h1 className="text-xl font-semibold">Side by side</h1>
      <p className="mb-4 mt-1 max-w-[44rem] text-quiet">
        Two groups of runs or more: whether they differ, by how much, whether that matters, and whether the comparison
        is fair. Fill each tray by typing as in the ledger, begin with a rule, or choose runs in the ledger.
      </p>
      <TrayForm
        trays={TWO_EMPTY}
        name=""
        known={frame.known}
        does="Hold them side by side"
        submit={makeComparisonAction.bind(null, site.id)}
      />
      <h2 className="mt-8 font-semibold">Turn and turn about</h2>
      <p className="mb-2 max-w-[44rem] text-quiet">
        The fairest way to compare: A, B, A, B, so that a line that drifts weighs on both alike. Devices that stand by
        are asked in turn; what hands have to change is asked for each time.
      </p>
      {open.map(({ id, sides, runs, times }) => (
        <p key={id} className="border-t border-hairline py-1">
          <Link
            href={`/side/turns/${id}`}
            className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
          >
            {sides[0].name} and {sides[1].name}
          </Link>{' '}
          <span className="text-sm text-quiet">
            {runs[0].length + runs[1].length} of {2 * times} runs
          </span>
        </p>
      ))}
      {devices.length === 0 ? (
        <p className="text-quiet">No device is known in this office yet.</p>
      ) : (
        <details>
          <summary className="font-semibold">Begin one</summary>
          <div className="mt-2">
            <AlternationForm
              devices={devices
                .map(({ id, name }) => ({ id, name, standsBy: context.standing.isPresent(id) }))
                .sort((a, b) => Number(b.standsBy) - Number(a.standsBy))}
              peers={peers.map(({ id, name, reach }) => ({ id, name, reach }))}
              start={startAlternationAction.bind(null, site.id)}
            />
          </div>
        </details>
      )}
      <h2 className="mt-8 font-semibold">Kept</h2>
      {kept.length === 0 ? (
        <p className="text-quiet">None yet.</p>
      ) : (
        <ul className="mt-1">
          {kept.map(({ id, name, trays, byName, madeAtMs }) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-t border-hairline py-1">
              <Link
                href={`/side/${id}`}
                className="underline decoration-hairline underline-offset-4 hover:decoration-ink"
              >
                {name === '' ? trays.map((tray) => tray.name || tray.query || 'chosen runs').join(' | ') : name}
              </Link>
              <span className="text-sm text-quiet">
                {byName}, <WallTime atMs={madeAtMs} />
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
