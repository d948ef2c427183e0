import type { Port, PortReading, PortsAsked, PortsFound, SnmpLogin } from '@/core';
import { sleep } from '@/session';
import { LookFault } from './look-fault';
import { numberOf, SnmpSession, textOf } from './snmp-session';

const SYSTEM = { description: '1.3.6.1.2.1.1.1.0', upTime: '1.3.6.1.2.1.1.3.0', name: '1.3.6.1.2.1.1.5.0' };
/** IF-MIB (RFC 2863), EtherLike-MIB (RFC 3635), BRIDGE-MIB (RFC 4188), Q-BRIDGE-MIB (RFC 4363). */
const IF = '1.3.6.1.2.1.2.2.1';
const IFX = '1.3.6.1.2.1.31.1.1.1';
const ETHER = '1.3.6.1.2.1.10.7.2.1';
const BRIDGE = '1.3.6.1.2.1.17';
const COLUMNS = {
  ...{ description: `${IF}.2`, speed: `${IF}.5`, status: `${IF}.8`, inErrors: `${IF}.14`, outErrors: `${IF}.20` },
  ...{ inDiscards: `${IF}.13`, outDiscards: `${IF}.19`, in32: `${IF}.10`, out32: `${IF}.16` },
  ...{ name: `${IFX}.1`, in64: `${IFX}.6`, out64: `${IFX}.10`, highSpeed: `${IFX}.15`, alias: `${IFX}.18` },
  ...{ duplex: `${ETHER}.19`, checksums: `${ETHER}.3` },
} as const;
/** What is asked again for the second reading. */
const MOVING = [
  'in64',
  'out64',
  'in32',
  'out32',
  'inErrors',
  'outErrors',
  'inDiscards',
  'outDiscards',
  'checksums',
] as const;
type Column = keyof typeof COLUMNS;
type Columns = Readonly<Partial<Record<Column, ReadonlyMap<string, unknown>>>>;

const UP = 1;
/** Behind the way to another switch there may be thousands. */
const MOST_BEHIND = 200;
const DUPLEX: Readonly<Record<number, 'half' | 'full'>> = { 2: 'half', 3: 'full' };

async function read(session: SnmpSession, columns: readonly Column[]): Promise<Columns> {
  const found: Partial<Record<Column, ReadonlyMap<string, unknown>>> = {};
  for (const column of columns) found[column] = await session.column(COLUMNS[column]);
  return found;
}

/** The end of a row of a table of addresses is the address itself, six numbers. */
const macOf = (row: string) => {
  const numbers = row.split('.').slice(-6).map(Number);
  return numbers.map((part) => part.toString(16).padStart(2, '0')).join(':');
};

/** Which hardware addresses were heard behind which interface. */
async function heardBehind(session: SnmpSession): Promise<ReadonlyMap<string, readonly string[]>> {
  const interfaceOf = await session.column(`${BRIDGE}.1.4.1.2`);
  const behind = new Map<string, string[]>();
  if (interfaceOf.size === 0) return behind;
  for (const table of [`${BRIDGE}.7.1.2.2.1.2`, `${BRIDGE}.4.3.1.2`]) {
    const rows = await session.column(table);
    for (const [row, bridgePort] of rows) {
      const index = String(interfaceOf.get(String(numberOf(bridgePort))) ?? '');
      if (index !== '') behind.set(index, [...(behind.get(index) ?? []), macOf(row)]);
    }
    // Where it tells VLANs apart, the plain table says the same once more.
    if (rows.size > 0) break;
  }
  return behind;
}

function portsOf(columns: Columns, behind: ReadonlyMap<string, readonly string[]>, wide: boolean): Port[] {
  const number = (column: Column, index: string) => numberOf(columns[column]?.get(index));
  const sum = (a: number | null, b: number | null) => (a === null && b === null ? null : (a ?? 0) + (b ?? 0));
  return [...(columns.description ?? new Map<string, unknown>())].map(([index, description]): Port => {
    const [fast, slow, status] = [number('highSpeed', index), number('speed', index), number('status', index)];
    return {
      index: Number(index),
      name: textOf(columns.name?.get(index)) ?? textOf(description) ?? index,
      label: textOf(columns.alias?.get(index)),
      up: status === null ? null : status === UP,
      speedMbps: fast !== null && fast > 0 ? fast : slow !== null && slow > 0 ? slow / 1e6 : null,
      duplex: DUPLEX[number('duplex', index) ?? 0] ?? null,
      ...{ inBytes: number(wide ? 'in64' : 'in32', index), outBytes: number(wide ? 'out64' : 'out32', index) },
      ...{ inErrors: number('inErrors', index), outErrors: number('outErrors', index) },
      checksumErrors: number('checksums', index),
      discards: sum(number('inDiscards', index), number('outDiscards', index)),
      behind: (behind.get(index) ?? []).slice(0, MOST_BEHIND),
    };
  });
}

/**
 * The ports of a router or switch by SNMP, twice some seconds apart, so that what moves is a rate. Reads only. Throws LookFault:
 * it is silent (or the community is wrong, which looks the same), refuses the user, or has no table of interfaces.
 */
export async function lookAtPorts(
  { target, seconds }: PortsAsked,
  access: SnmpLogin,
  signal: AbortSignal,
): Promise<PortsFound> {
  const session = await SnmpSession.open({ target, ...access });
  const upMs = async () => {
    const [ticks] = await session.get([SYSTEM.upTime]);
    return numberOf(ticks) === null ? null : 10 * numberOf(ticks)!;
  };
  try {
    const [name, description] = await session.get([SYSTEM.name, SYSTEM.description]);
    const beforeUpMs = await upMs();
    const first = await read(session, Object.keys(COLUMNS) as Column[]);
    const beforeMs = Date.now();
    if ((first.description?.size ?? 0) === 0) throw new LookFault('snmp-no-ports', { target });
    const wide = (first.in64?.size ?? 0) > 0;
    const behind = await heardBehind(session);
    await sleep(Math.max(0, 1000 * seconds - (Date.now() - beforeMs)), signal);
    signal.throwIfAborted();
    const afterUpMs = await upMs();
    const again = { ...first, ...(await read(session, MOVING)) };
    const reading = (atMs: number, up: number | null, columns: Columns): PortReading => ({
      ...{ atMs, upMs: up, wide, ports: portsOf(columns, behind, wide) },
    });
    return {
      ...{ what: 'ports', target, system: textOf(name) ?? textOf(description) },
      ...{ before: reading(beforeMs, beforeUpMs, first), after: reading(Date.now(), afterUpMs, again) },
    };
  } catch (error) {
    if (signal.aborted) throw new LookFault('look-stopped');
    throw error;
  } finally {
    session.close();
  }
}
