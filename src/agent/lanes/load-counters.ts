import { IGD_TARGET } from '@/core';
import { snmpLoginSchema } from '@/wire';
import { askIgd, findIgd, type IgdService } from '../look/igd';
import { numberOf, SnmpSession, USUAL_LOGIN } from '../look/snmp-session';

/** What a port had moved at a moment; null: it does not say. */
export interface LoadReading {
  /** Monotonic, ms. */
  readonly atMs: number;
  /** How long the device has been up, ms: less than before, and its counters began anew. */
  readonly upMs: number | null;
  /** Whether its counters have 64 bits. */
  readonly wide: boolean;
  readonly speedMbps: number | null;
  readonly inBytes: number | null;
  readonly outBytes: number | null;
}

/** Counters of a port that are read again and again. `read` rejects when the device does not answer. */
export interface LoadCounters {
  read(): Promise<LoadReading>;
  close(): void;
}

const UP_TIME = '1.3.6.1.2.1.1.3.0';
/** IF-MIB (RFC 2863): in and out with 64 bits, the same with 32, and the speed in Mb/s. */
const COLUMNS = ['31.1.1.1.6', '31.1.1.1.10', '2.2.1.10', '2.2.1.16', '31.1.1.1.15'].map(
  (column) => `1.3.6.1.2.1.${column}`,
);
/** Faster than this no line is taken to be where the router does not tell: so much fits into 32 bits between two readings. */
const FASTEST_MBPS = 1500;

function snmpCounters(host: string, index: string, key: string | null): LoadCounters {
  const login = key === null ? USUAL_LOGIN : snmpLoginSchema.parse(JSON.parse(key));
  const opening = SnmpSession.open({ target: host, ...login });
  return {
    // One request for all of it.
    read: async () => {
      const session = await opening;
      const values = await session.get([UP_TIME, ...COLUMNS.map((column) => `${column}.${index}`)]);
      const [ticks, in64, out64, in32, out32, speed] = values.map(numberOf);
      const wide = in64 !== null && in64 !== undefined;
      return {
        ...{ atMs: performance.now(), upMs: ticks === null || ticks === undefined ? null : 10 * ticks, wide },
        speedMbps: speed === undefined || speed === null || speed === 0 ? null : speed,
        ...{ inBytes: (wide ? in64 : in32) ?? null, outBytes: (wide ? out64 : out32) ?? null },
      };
    },
    close: () => void opening.then((session) => session.close()),
  };
}

/** `to`: whom to search; absent: everybody in this network. */
export function igdCounters(to?: Parameters<typeof findIgd>[1]): LoadCounters {
  const closing = new AbortController();
  let service: IgdService | null = null;
  let speedMbps = FASTEST_MBPS;
  const value = async (of: IgdService, action: string, name: string) => {
    const told = Number((await askIgd(of, action))?.[name] ?? NaN);
    if (!Number.isFinite(told) || told < 0) throw new Error('the router tells no counters');
    return told;
  };
  const find = async () => {
    const igd = await findIgd(closing.signal, to);
    const found = igd?.services.find(({ type }) => type.includes(':WANCommonInterfaceConfig:'));
    if (found === undefined) throw new Error('no router of this network tells its counters');
    const link = await askIgd(found, 'GetCommonLinkProperties');
    const told = ['NewLayer1DownstreamMaxBitRate', 'NewLayer1UpstreamMaxBitRate'].map((name) =>
      Number(link?.[name] ?? 0),
    );
    speedMbps = Math.max(...told) / 1e6 || FASTEST_MBPS;
    return found;
  };
  return {
    read: async () => {
      service ??= await find();
      try {
        const inBytes = await value(service, 'GetTotalBytesReceived', 'NewTotalBytesReceived');
        const outBytes = await value(service, 'GetTotalBytesSent', 'NewTotalBytesSent');
        return { atMs: performance.now(), upMs: null, wide: false, speedMbps, inBytes, outBytes };
      } catch (error) {
        // It may have come back somewhere else.
        service = null;
        throw error;
      }
    },
    close: () => closing.abort(),
  };
}

/** The counters that a lane's target names. Throws where it cannot be read. */
export function openLoadCounters(target: string, key: string | null): LoadCounters {
  if (target === IGD_TARGET) return igdCounters();
  const [, host, index] = /^(.+)\/(\d+)$/.exec(target) ?? [];
  if (host === undefined || index === undefined) throw new Error('no port is named');
  return snmpCounters(host, index, key);
}
