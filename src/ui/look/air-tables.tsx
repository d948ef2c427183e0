import { bandOf, channelLedger, channelOf, shareWords, type AirFound } from '@/core';
import { CELL, FIGURE, Table } from './found-table';

/** So many of the quietest of each band are shown. */
const MOST_CHANNELS = 8;

/** Channels, the quietest of each band first, and who is heard. */
export function AirTables({ found }: { readonly found: AirFound }) {
  const heardBands = new Set(found.networks.map(({ primaryMhz }) => bandOf(primaryMhz)));
  const ledger = channelLedger(found.networks).filter(({ band }) => heardBands.has(band));
  const bands = [...new Set(ledger.map(({ band }) => band))];
  const networks = [...found.networks].sort((a, b) => b.signalDbm - a.signalDbm);
  return (
    <div className="grid gap-x-10 gap-y-4 xl:grid-cols-2">
      <Table
        label="Channels, the quietest first"
        heads={['band', 'channel', 'networks', 'strongest, dBm', 'told load', 'shared with', '']}
      >
        {bands.flatMap((band) =>
          ledger
            .filter((entry) => entry.band === band)
            .slice(0, MOST_CHANNELS)
            .map(({ channel, networks: many, strongestDbm, load, pressure, radar, preferred }) => (
              <tr key={`${band} ${channel}`} className="border-t border-hairline">
                <td className={`${CELL} whitespace-nowrap`}>{band} GHz</td>
                <td className={FIGURE}>{channel}</td>
                <td className={FIGURE}>{many}</td>
                <td className={FIGURE}>{strongestDbm === null ? '–' : Math.round(strongestDbm)}</td>
                <td className={FIGURE}>{load === null ? 'not told' : shareWords(load)}</td>
                <td className={FIGURE}>{pressure < 0.05 ? 'nobody' : pressure.toFixed(1)}</td>
                <td className={`${CELL} whitespace-nowrap text-quiet`}>
                  {radar ? 'radar first' : preferred ? 'looked at first' : ''}
                </td>
              </tr>
            )),
        )}
      </Table>
      <Table label="Networks" heads={['network', 'channel', 'wide, MHz', 'signal, dBm', 'load', 'devices']}>
        {networks.map(({ bssid, name, own, primaryMhz, widthMhz, signalDbm, load, stations }) => (
          <tr key={bssid} className="border-t border-hairline">
            <td className={`${CELL} min-w-0 max-w-64 break-words`}>
              {name ?? <span className="text-quiet">hides its name</span>}
              {own && <span className="font-medium">, ours</span>}
              <span className="figure block text-[0.72rem] text-quiet">{bssid}</span>
            </td>
            <td className={FIGURE}>{channelOf(primaryMhz) ?? '–'}</td>
            <td className={FIGURE}>{widthMhz}</td>
            <td className={FIGURE}>{Math.round(signalDbm)}</td>
            <td className={FIGURE}>{load === null ? 'not told' : shareWords(load)}</td>
            <td className={FIGURE}>{stations ?? 'not told'}</td>
          </tr>
        ))}
      </Table>
    </div>
  );
}
