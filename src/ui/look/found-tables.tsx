import {
  addedAtHop,
  byteRateWords,
  delayFigure,
  IGD_TARGET,
  percentile,
  rankResolvers,
  rateWords,
  shareRateBps,
  sizeWords,
  type EchoFound,
  type HopDelays,
  lineRates,
  type LineFound,
  type LookFound,
  type NamesFound,
  type PathFound,
  type ProgramsFound,
  type ShareFound,
  type ShareSeries,
} from '@/core';
import { rangeWordsOf } from './address-range';
import { AirTables } from './air-tables';
import { KeepLoadButton, type KeepLoad } from './keep-load';
import { OutsideTable } from './outside-table';
import { PortTable } from './port-table';
import { CELL, FIGURE, Table } from './found-table';

const timesOf = (rttsMs: readonly (number | null)[]) => rttsMs.filter((ms) => ms !== null);

/** What a full line added at a hop, each way. */
function AddedCells({ hop }: { readonly hop: HopDelays | undefined }) {
  return (['down', 'up'] as const).map((way) => {
    const addedMs = hop === undefined ? null : addedAtHop(hop, way);
    return (
      <td key={way} className={FIGURE}>
        {addedMs === null ? 'not told' : delayFigure(Math.max(0, addedMs))}
      </td>
    );
  });
}

function Hops({ found }: { readonly found: PathFound }) {
  return (
    <Table
      label="Hops"
      heads={[
        ...['hop', 'who answers', 'whose address it is', 'least delay, ms', 'answered'],
        ...(found.loaded === undefined ? [] : ['added while full down, ms', 'added while full up, ms']),
      ]}
    >
      {found.hops.map(({ place, addresses, name, rttsMs }) => {
        const times = timesOf(rttsMs);
        return (
          <tr key={place} className="border-t border-hairline">
            <td className={FIGURE}>{place}</td>
            <td className={CELL}>
              {addresses.length === 0 ? (
                <span className="text-quiet">nobody says anything</span>
              ) : (
                <>
                  <span className="figure text-[0.8rem]">{addresses.join(', ')}</span>
                  {name !== null && <span className="block break-words text-quiet">{name}</span>}
                </>
              )}
            </td>
            <td className={`${CELL} text-quiet`}>{addresses[0] === undefined ? '' : rangeWordsOf(addresses[0])}</td>
            <td className={FIGURE}>{times.length === 0 ? 'not told' : delayFigure(Math.min(...times))}</td>
            <td className={FIGURE}>{rttsMs.length === 0 ? '–' : `${times.length} of ${rttsMs.length}`}</td>
            {found.loaded !== undefined && <AddedCells hop={found.loaded.hops.find((hop) => hop.place === place)} />}
          </tr>
        );
      })}
    </Table>
  );
}

const ROLES = { own: 'this machine’s', gateway: 'the gateway', typed: 'typed' } as const;

function Resolvers({ found }: { readonly found: NamesFound }) {
  return (
    <Table
      label="Resolvers, the one to take first"
      heads={[
        'resolver',
        'which',
        'new name, ms',
        'middle half',
        'asked before, ms',
        'failed',
        'made up',
        'checks signatures',
      ]}
    >
      {rankResolvers(found).map(({ resolver, role, fresh, againMs, asked, failed, lies, authentic }) => (
        <tr key={resolver} className="border-t border-hairline">
          <td className={FIGURE}>{resolver}</td>
          <td className={CELL}>{ROLES[role]}</td>
          <td className={FIGURE}>{fresh === null ? 'not told' : delayFigure(fresh.ms)}</td>
          <td className={FIGURE}>{fresh === null ? '–' : `${delayFigure(fresh.low)} to ${delayFigure(fresh.high)}`}</td>
          <td className={FIGURE}>{againMs === null ? 'not told' : delayFigure(againMs)}</td>
          <td className={FIGURE}>{`${failed} of ${asked}`}</td>
          <td className={FIGURE}>{lies}</td>
          <td className={CELL}>{authentic ? 'yes' : 'not said'}</td>
        </tr>
      ))}
    </Table>
  );
}

function shareRow(way: string, series: ShareSeries | null) {
  const bps = series === null ? null : shareRateBps(series);
  return (
    <tr key={way} className="border-t border-hairline">
      <td className={CELL}>{way}</td>
      <td className={FIGURE}>{series === null ? '–' : sizeWords(series.bytes.at(-1) ?? null)}</td>
      <td className={FIGURE}>{series === null ? '–' : `${((series.atMs.at(-1) ?? 0) / 1000).toFixed(1)} s`}</td>
      <td className={FIGURE}>{rateWords(bps)}</td>
      <td className={FIGURE}>{byteRateWords(bps)}</td>
    </tr>
  );
}

function Share({ found }: { readonly found: ShareFound }) {
  return (
    <>
      <p className="text-sm text-quiet">
        {found.fileSystem} from {found.source}, {found.streams === 1 ? 'one file' : `${found.streams} files at a time`}.
        The rate is all bytes over the time until the last of them was safe; what the store itself holds in memory
        cannot be told apart.
      </p>
      <Table label="What the store takes and gives" heads={['way', 'moved', 'in', 'rate', 'in bytes']}>
        {shareRow('written', found.written)}
        {shareRow('read back', found.read)}
      </Table>
    </>
  );
}

function Echo({ found }: { readonly found: EchoFound }) {
  const times = timesOf(found.rttsMs);
  if (times.length === 0) return null;
  const figure = (share: number) => delayFigure(percentile(times, share));
  return (
    <Table label="Round trips" heads={['least, ms', 'median', 'p95', 'most', 'lost', 'twice']}>
      <tr className="border-t border-hairline">
        <td className={FIGURE}>{delayFigure(Math.min(...times))}</td>
        <td className={FIGURE}>{figure(0.5)}</td>
        <td className={FIGURE}>{figure(0.95)}</td>
        <td className={FIGURE}>{delayFigure(Math.max(...times))}</td>
        <td className={FIGURE}>{`${found.rttsMs.length - times.length} of ${found.rttsMs.length}`}</td>
        <td className={FIGURE}>{found.duplicates}</td>
      </tr>
    </Table>
  );
}

function Programs({ found }: { readonly found: ProgramsFound }) {
  if (found.programs.length === 0) return null;
  return (
    <Table label="Programs" heads={['program', 'where to', 'up', 'down']}>
      {found.programs.map(({ program, inside, upBps, downBps }) => (
        <tr key={`${program} ${inside}`} className="border-t border-hairline">
          <td className={CELL}>{program ?? 'of another user'}</td>
          <td className={CELL}>{inside ? 'inside' : 'outside'}</td>
          <td className={FIGURE}>{rateWords(upBps)}</td>
          <td className={FIGURE}>{rateWords(downBps)}</td>
        </tr>
      ))}
    </Table>
  );
}

function Line({ found, deviceId, keep }: Kept<LineFound>) {
  const { downBps, upBps } = lineRates(found);
  return (
    <>
      <Table label="The line" heads={['way', 'now, by everybody', 'came up with']}>
        {(
          [
            ['down', downBps, found.linkDownBps],
            ['up', upBps, found.linkUpBps],
          ] as const
        ).map(([way, bps, link]) => (
          <tr key={way} className="border-t border-hairline">
            <td className={CELL}>{way}</td>
            <td className={FIGURE}>{bps === null ? 'not known' : rateWords(bps)}</td>
            <td className={FIGURE}>{link === null ? 'not told' : rateWords(link)}</td>
          </tr>
        ))}
      </Table>
      <KeepLoadButton load={{ deviceId, target: IGD_TARGET, name: 'Line', role: 'line' }} keep={keep} />
    </>
  );
}

interface Kept<Found> {
  readonly found: Found;
  /** The agent that looked. */
  readonly deviceId: string;
  readonly keep: KeepLoad;
}

/** All that was found. */
export function FoundTable({ found, deviceId, keep }: Kept<LookFound>) {
  switch (found.what) {
    case 'path':
      return <Hops found={found} />;
    case 'names':
      return <Resolvers found={found} />;
    case 'share':
      return <Share found={found} />;
    case 'echo':
      return <Echo found={found} />;
    case 'programs':
      return <Programs found={found} />;
    case 'air':
      return <AirTables found={found} />;
    case 'ports':
      return <PortTable found={found} deviceId={deviceId} keep={keep} />;
    case 'line':
      return <Line found={found} deviceId={deviceId} keep={keep} />;
    case 'outside':
      return <OutsideTable found={found} />;
  }
}
