import type { LineAsked, LineFound, LineReading } from '@/core';
import { sleep } from '@/session';
import { askIgd, findIgd, type IgdService } from './igd';
import { LookFault } from './look-fault';

const numberIn = (values: Readonly<Record<string, string>> | null, name: string) => {
  const value = Number(values?.[name] ?? NaN);
  return Number.isFinite(value) && value >= 0 ? value : null;
};

/**
 * What goes over the line now, by everybody, as the router counts it (UPnP IGD, WANCommonInterfaceConfig): reads only. Throws
 * LookFault. `to`: whom to search; absent: everybody in this network.
 */
export async function lookAtLine(
  { seconds }: LineAsked,
  signal: AbortSignal,
  to?: { readonly address: string; readonly port: number },
): Promise<LineFound> {
  const igd = await findIgd(signal, to);
  if (signal.aborted) throw new LookFault('look-stopped');
  if (igd === null) throw new LookFault('igd-none');
  const find = (part: string) => igd.services.find(({ type }) => type.includes(part)) ?? null;
  const counters = find(':WANCommonInterfaceConfig:');
  const connection = find(':WANIPConnection:') ?? find(':WANPPPConnection:');
  if (counters === null) throw new LookFault('igd-odd', { target: igd.address });
  const reading = async (of: IgdService): Promise<LineReading> => {
    const received = numberIn(await askIgd(of, 'GetTotalBytesReceived'), 'NewTotalBytesReceived');
    const sent = numberIn(await askIgd(of, 'GetTotalBytesSent'), 'NewTotalBytesSent');
    if (received === null || sent === null) throw new LookFault('igd-odd', { target: igd.address });
    return { atMs: Date.now(), receivedBytes: received, sentBytes: sent };
  };
  const [link, outside] = [
    await askIgd(counters, 'GetCommonLinkProperties'),
    connection === null ? null : await askIgd(connection, 'GetExternalIPAddress'),
  ];
  const before = await reading(counters);
  await sleep(1000 * seconds, signal);
  if (signal.aborted) throw new LookFault('look-stopped');
  const rate = (name: string) => {
    const bps = numberIn(link, name);
    return bps === null || bps === 0 ? null : bps;
  };
  return {
    ...{ what: 'line', router: igd.name, address: igd.address },
    outsideAddress: outside?.['NewExternalIPAddress']?.slice(0, 60) ?? null,
    ...{ linkDownBps: rate('NewLayer1DownstreamMaxBitRate'), linkUpBps: rate('NewLayer1UpstreamMaxBitRate') },
    ...{ before, after: await reading(counters) },
  };
}
