import { Fragment } from 'react';
import { lookSentence } from '@/core';
import type { AirPage } from '@/services';
import { AirTables } from '../look/air-tables';
import { CELL, Table } from '../look/found-table';
import { Link } from '../parts/link';
import { WallTime } from '../parts/wall-time';
import { AIR_HEADS, AirCells } from './air-figures';

const bandWords = (band: string | null) => (band === null ? 'band not told' : `${band} GHz`);
const LINKED = 'underline underline-offset-4';

/** Which channel to take, by what a radio heard last; without a radio, what to do instead. */
function Channels({ heard, listeners }: Pick<AirPage, 'heard' | 'listeners'>) {
  if (heard !== null)
    return (
      <>
        <p className="max-w-[60rem] break-words text-lg">{lookSentence(heard.found, null)}</p>
        <p className="mb-3 mt-1 text-sm text-quiet">
          Heard by {heard.deviceName}, <WallTime atMs={heard.atMs} />.{' '}
          {listeners.length > 0 && (
            <Link href="/look?what=air" className={LINKED}>
              Listen again
            </Link>
          )}
        </p>
        <AirTables found={heard.found} />
      </>
    );
  return (
    <p className="max-w-[46rem]">
      No radio has listened here yet.{' '}
      {listeners.length > 0 ? (
        <Link href="/look?what=air" className={LINKED}>
          Let a machine with a radio listen
        </Link>
      ) : (
        <Link href="/agent" className={LINKED}>
          Make a laptop with Wi-Fi an agent
        </Link>
      )}
      : it hears which networks talk on which channels. A browser is not told that. What a phone can do: open the test
      page on it at each spot, choose the spot, and measure; the tables below then say where the air is bad.
    </p>
  );
}

/** Where runs went through the air: each spot, the worst first. */
function Spots({ spots, nowMs }: Pick<AirPage, 'spots'> & { readonly nowMs: number }) {
  return (
    <Table label="Spots, the worst first" heads={['spot', 'band', ...AIR_HEADS]}>
      {spots.map((spot) => (
        <tr key={`${spot.spotName} ${spot.band}`} className="border-t border-hairline">
          <td className={`${CELL} min-w-32 max-w-64 break-words`}>
            {spot.spotName ?? <span className="text-quiet">no spot named</span>}
          </td>
          <td className={`${CELL} whitespace-nowrap`}>{bandWords(spot.band)}</td>
          <AirCells of={spot} nowMs={nowMs} />
        </tr>
      ))}
    </Table>
  );
}

/** Who hears which access point, and how. */
function AccessPoints({ accessPoints, nowMs }: Pick<AirPage, 'accessPoints'> & { readonly nowMs: number }) {
  return (
    <Table label="Devices by access point" heads={['access point', 'device', ...AIR_HEADS]}>
      {accessPoints.map(({ accessPoint, band, devices }) => (
        <Fragment key={`${accessPoint} ${band}`}>
          {devices.map((device, place) => (
            <tr key={device.deviceId} className="border-t border-hairline">
              <td className={`${CELL} min-w-32 max-w-64 break-words`}>
                {place === 0 && (
                  <>
                    {accessPoint ?? <span className="text-quiet">not named</span>}
                    <span className="block text-sm text-quiet">{bandWords(band)}</span>
                  </>
                )}
              </td>
              <td className={`${CELL} min-w-32 max-w-64 break-words`}>{device.deviceName}</td>
              <AirCells of={device} nowMs={nowMs} />
            </tr>
          ))}
        </Fragment>
      ))}
    </Table>
  );
}

interface AirViewProps {
  readonly air: AirPage;
  readonly days: number;
  readonly nowMs: number;
}

/** The air of an office: channels, spots, and who hears which access point. */
export function AirView({ air, days, nowMs }: AirViewProps) {
  return (
    <div className="space-y-8">
      <section aria-label="Channels">
        <h2 className="mb-1 font-semibold">Which channel</h2>
        <Channels {...air} />
      </section>
      <section aria-label="Spots">
        <h2 className="font-semibold">By spot</h2>
        {air.spots.length === 0 ? (
          <p className="text-quiet">No run went over Wi-Fi in {days} days.</p>
        ) : (
          <>
            <p className="mb-1 text-sm text-quiet">
              Runs over Wi-Fi of the last {days} days, each with the signal that it was made with, where the device
              tells one. The worst spot stands first.
            </p>
            <Spots spots={air.spots} nowMs={nowMs} />
          </>
        )}
      </section>
      {air.accessPoints.length > 0 && (
        <section aria-label="Access points">
          <h2 className="mb-1 font-semibold">By access point</h2>
          <AccessPoints accessPoints={air.accessPoints} nowMs={nowMs} />
        </section>
      )}
    </div>
  );
}
