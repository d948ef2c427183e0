import { portRates, rateWords, type Port, type PortsFound } from '@/core';
import { CELL, FIGURE, Table } from './found-table';
import { KeepLoadButton, type KeepLoad } from './keep-load';

const MOST_BEHIND = 2;

function stateOf({ up, speedMbps, duplex }: Port): string {
  if (up === false) return 'not up';
  if (up === null && speedMbps === null) return 'not told';
  return `${speedMbps === null ? 'speed not told' : `${speedMbps} Mb/s`}${duplex === 'half' ? ', half duplex' : ''}`;
}

function behindWords(behind: readonly string[]): string {
  if (behind.length === 0) return '';
  const more = behind.length - MOST_BEHIND;
  return `${behind.slice(0, MOST_BEHIND).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

function movedWords({ up }: Port, bps: number | null): string {
  if (up === false) return '–';
  return bps === null ? 'not known' : rateWords(bps);
}

const frames = (value: number | null) => (value === null ? 'not told' : String(value));

interface PortTableProps {
  readonly found: PortsFound;
  readonly deviceId: string;
  readonly keep: KeepLoad;
}

/** Ports in their order, those that are up first: rates between the readings, and damaged frames since the device was started. */
export function PortTable({ found, deviceId, keep }: PortTableProps) {
  const rates = [...portRates(found)].sort(
    (a, b) => Number(b.port.up === true) - Number(a.port.up === true) || a.port.index - b.port.index,
  );
  return (
    <Table
      label="Ports"
      heads={['port', 'state', 'in', 'out', 'damaged meanwhile', 'damaged ever', 'heard behind it', '']}
    >
      {rates.map(({ port, inBps, outBps, newErrors }) => (
        <tr key={port.index} className={`border-t border-hairline ${port.up === true ? '' : 'text-quiet'}`}>
          <td className={`${CELL} max-w-56 break-words`}>
            {port.name}
            {port.label !== null && <span className="block text-quiet">{port.label}</span>}
          </td>
          <td className={`${CELL} whitespace-nowrap`}>{stateOf(port)}</td>
          <td className={FIGURE}>{movedWords(port, inBps)}</td>
          <td className={FIGURE}>{movedWords(port, outBps)}</td>
          <td className={FIGURE}>{frames(newErrors)}</td>
          <td className={FIGURE}>
            {frames(
              port.inErrors === null && port.outErrors === null ? null : (port.inErrors ?? 0) + (port.outErrors ?? 0),
            )}
          </td>
          <td className={`${CELL} figure text-[0.72rem] text-quiet`}>{behindWords(port.behind)}</td>
          <td className={CELL}>
            {port.up === true && (
              <KeepLoadButton
                load={{
                  ...{ deviceId, target: `${found.target}/${port.index}`, role: 'inside' },
                  name: port.label ?? `${found.system ?? found.target} ${port.name}`,
                }}
                keep={keep}
              />
            )}
          </td>
        </tr>
      ))}
    </Table>
  );
}
