import { createSocket } from 'node:dgram';
import snmp from 'net-snmp';
import { portRates } from '@/core';
import { LookFault } from './look-fault';
import { lookAtPorts } from './ports';

const never = new AbortController().signal;

/** A port that nobody has. */
async function freePort(): Promise<number> {
  const socket = createSocket('udp4');
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const { port } = socket.address();
  await new Promise<void>((resolve) => socket.close(() => resolve()));
  return port;
}

/** 64 bits as they go over the wire. */
function wideCount(value: number): Buffer {
  const bytes = Buffer.alloc(8);
  bytes.writeBigUInt64BE(BigInt(value));
  return bytes;
}

interface Column {
  readonly number: number;
  readonly name: string;
  readonly type: number;
}

/** The agent part of net-snmp, as far as it is used here; its types do not tell. */
interface SwitchAgent {
  getAuthorizer(): { addCommunity(name: string): void; addUser(user: object): void };
  getMib(): {
    registerProvider(provider: object): void;
    setScalarValue(name: string, value: number | string): void;
    addTableRow(name: string, row: readonly unknown[]): void;
    setTableSingleCell(name: string, column: number, row: readonly number[], value: unknown): void;
  };
  close(): void;
}

/** A small switch that speaks SNMP: two ports, and who is behind the second. */
function openSwitch(port: number, columns: { readonly wide: boolean; readonly none?: boolean }) {
  const agent = snmp.createAgent(
    { port, address: '127.0.0.1', disableAuthorization: false },
    () => undefined,
  ) as SwitchAgent;
  agent.getAuthorizer().addCommunity('bindery');
  agent.getAuthorizer().addUser({
    ...{
      name: 'ines',
      level: snmp.SecurityLevel.authPriv,
      authProtocol: snmp.AuthProtocols.sha,
      authKey: 'pillow gravel',
    },
    ...{ privProtocol: snmp.PrivProtocols.aes, privKey: 'otter nine nine' },
  });
  const mib = agent.getMib();
  const scalar = (name: string, oid: string, type: number, value: number | string) => {
    mib.registerProvider({
      name,
      type: snmp.MibProviderType.Scalar,
      oid,
      scalarType: type,
      maxAccess: snmp.MaxAccess['read-only'],
    });
    mib.setScalarValue(name, value);
  };
  const { OctetString, Integer, Counter, Counter64, Gauge, TimeTicks } = snmp.ObjectType;
  scalar('sysDescr', '1.3.6.1.2.1.1.1', OctetString, 'a switch of a test');
  scalar('sysUpTime', '1.3.6.1.2.1.1.3', TimeTicks, 8_640_000);
  scalar('sysName', '1.3.6.1.2.1.1.5', OctetString, 'bindery-switch');
  const table = (
    name: string,
    oid: string,
    indexes: readonly Column[],
    list: readonly Column[],
    rows: readonly (readonly unknown[])[],
  ) => {
    mib.registerProvider({
      ...{ name, type: snmp.MibProviderType.Table, oid, maxAccess: snmp.MaxAccess['not-accessible'] },
      tableColumns: [...indexes, ...list].map((column) => ({ ...column, maxAccess: snmp.MaxAccess['read-only'] })),
      tableIndex: indexes.map(({ name: columnName }) => ({ columnName })),
    });
    for (const row of rows) mib.addTableRow(name, [...row]);
  };
  const index: Column = { number: 1, name: 'ifIndex', type: Integer };
  if (columns.none === true) return { agent, set: () => undefined, scalar: () => undefined };
  table(
    'ifEntry',
    '1.3.6.1.2.1.2.2.1',
    [index],
    [
      { number: 2, name: 'ifDescr', type: OctetString },
      { number: 5, name: 'ifSpeed', type: Gauge },
      { number: 8, name: 'ifOperStatus', type: Integer },
      { number: 10, name: 'ifInOctets', type: Counter },
      { number: 14, name: 'ifInErrors', type: Counter },
      { number: 16, name: 'ifOutOctets', type: Counter },
    ],
    [
      [1, 'eth1', 1e9, 1, 1000, 0, 2000],
      [2, 'eth2', 1e8, 1, 1000, 5, 2000],
      [3, 'eth3', 0, 2, 0, 0, 0],
    ],
  );
  if (columns.wide) {
    table(
      'ifXEntry',
      '1.3.6.1.2.1.31.1.1.1',
      [{ number: 0, name: 'ifXIndex', type: Integer }],
      [
        { number: 1, name: 'ifName', type: OctetString },
        { number: 6, name: 'ifHCInOctets', type: Counter64 },
        { number: 10, name: 'ifHCOutOctets', type: Counter64 },
        { number: 15, name: 'ifHighSpeed', type: Gauge },
      ],
      [
        [1, 'port 1', wideCount(5_000_000_000), wideCount(70), 1000],
        [2, 'port 2', wideCount(6), wideCount(7), 100],
        [3, 'port 3', wideCount(0), wideCount(0), 0],
      ],
    );
  }
  const set = (name: string, row: number, column: number, value: number | Buffer) =>
    mib.setTableSingleCell(name, column, [row], value);
  return { agent, set, scalar: (name: string, value: number) => mib.setScalarValue(name, value) };
}

describe('ports of a switch by SNMP', () => {
  let port: number;
  let opened: ReturnType<typeof openSwitch>;
  const open = async (wide = true) => {
    port = await freePort();
    opened = openSwitch(port, { wide });
  };
  afterEach(() => opened.agent.close());
  const look = (
    login: { community?: string | null; user?: { name: string; authKey: string; privKey: string } | null } = {},
    seconds = 0.3,
  ) =>
    lookAtPorts(
      { what: 'ports', target: '127.0.0.1', seconds },
      { port, community: 'bindery', user: null, ...login },
      never,
    );
  const codeOf = (asked: Promise<unknown>) =>
    asked.then(
      () => 'it worked',
      (error: unknown) => (error instanceof LookFault ? error.code : error),
    );

  it('are read with names, speeds, states and counters of 64 bits', async () => {
    await open();
    const found = await look();
    expect(found.system).toBe('bindery-switch');
    expect(found.after.wide).toBe(true);
    expect(found.after.ports).toMatchObject([
      { index: 1, name: 'port 1', up: true, speedMbps: 1000, inBytes: 5_000_000_000, outBytes: 70 },
      { index: 2, name: 'port 2', up: true, speedMbps: 100, inErrors: 5 },
      { index: 3, up: false, speedMbps: null },
    ]);
  });

  it('what moves between the readings is a rate', async () => {
    await open();
    const asked = look({}, 0.8);
    setTimeout(() => opened.set('ifXEntry', 1, 6, wideCount(5_000_100_000)), 450);
    const found = await asked;
    const [first] = portRates(found);
    expect(first!.inBps).toBeCloseTo((8000 * 100_000) / (found.after.atMs - found.before.atMs), 3);
    expect(first!.outBps).toBe(0);
  });

  it('of a device without the newer tables are read by the older counters', async () => {
    await open(false);
    const found = await look();
    expect(found.after).toMatchObject({
      wide: false,
      ports: [{ name: 'eth1', speedMbps: 1000, inBytes: 1000 }, { name: 'eth2' }, {}],
    });
  });

  it('a device that is started anew meanwhile has no rates', async () => {
    await open();
    const asked = look({}, 0.8);
    setTimeout(() => {
      opened.scalar('sysUpTime', 5);
      opened.set('ifXEntry', 1, 6, wideCount(10));
    }, 450);
    expect(portRates(await asked)[0]!.inBps).toBeNull();
  });

  it('of a device that has none to tell are said not to be there', async () => {
    port = await freePort();
    opened = openSwitch(port, { wide: false, none: true });
    const asked = look();
    expect(await codeOf(asked)).toBe('snmp-no-ports');
    await expect(asked).rejects.toThrow('127.0.0.1');
  });

  it('are read as a user with keys', async () => {
    await open();
    const user = { name: 'ines', authKey: 'pillow gravel', privKey: 'otter nine nine' };
    expect((await look({ community: null, user })).after.ports).toHaveLength(3);
  });

  it('a wrong community is met with silence, a wrong user with a refusal: each is said', async () => {
    await open();
    expect(await codeOf(look({ community: 'wrong' }))).toBe('snmp-silent');
    const user = { name: 'nobody', authKey: 'pillow gravel', privKey: 'otter nine nine' };
    expect(await codeOf(look({ community: null, user }))).toMatch(/snmp-refused|snmp-silent|snmp-odd/);
  }, 30_000);
});
