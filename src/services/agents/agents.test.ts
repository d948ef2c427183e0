import type { MachineFacts } from '@/core';
import { AGENT_PROTOCOL, type AgentHello, type JoinAgent } from '@/wire';
import { cookieOfDevice, deviceOfCookie } from '../access/device-cookie';
import { furnish, openTestConsole, STRANGER, type TestConsole } from '../console/console-for-tests';
import { standingDevice } from '../turns/standing-for-tests';
import { agentsPageOf } from '../views';
import { joinAgent, noteChangeSeen, noteHello, noteNeighboursKnown, retireAgent } from '.';

const FACTS: MachineFacts = {
  ...{ system: 'Debian GNU/Linux 12, x64', gateway: { address: '192.0.2.1', link: 'eth0' }, gatewayMs: 0.4 },
  resolvers: ['192.0.2.1'],
  links: [
    {
      ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500, driver: 'r8169' },
      addresses: ['192.0.2.7'],
    },
  ],
};
const at100 = { ...FACTS, links: FACTS.links.map((link) => ({ ...link, speedMbps: 100 })) };

describe('an agent', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  const hello = (change: Partial<AgentHello> = {}): AgentHello => ({
    ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, facts: FACTS, clockMs: console.context.wallMs(), outbox: 0 },
    neighbours: [],
    can: [],
    ...change,
  });
  const order = (change: Partial<JoinAgent> = {}): JoinAgent => ({
    ...{ code, name: 'Attic box', spotName: 'Attic', hello: hello() },
    link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 },
    ...change,
  });
  const join = (change: Partial<JoinAgent> = {}, cookie: string | null = null) =>
    joinAgent(console.context, { ...STRANGER, code, cookie }, order(change));
  const joined = async () => {
    const found = await join();
    if (!found.ok) throw new Error(found.fault.code);
    return found.value.deviceId;
  };
  const page = () => agentsPageOf(console.context, siteId);

  it('joins by a code: a device of the office, at its spot, with what it sees of itself', async () => {
    const deviceId = await joined();
    const device = await console.context.store.sites.device(deviceId);
    expect(device).toMatchObject({ name: 'Attic box', kind: 'box', siteId });
    const { agents } = await page();
    expect(agents).toMatchObject([
      {
        deviceId,
        name: 'Attic box',
        spotName: 'Attic',
        present: false,
        sentence: '1000 Mb/s by cable, gateway 0.4 ms away',
      },
    ]);
    // It is known again by its cookie, as a browser is.
    const cookie = await cookieOfDevice(console.context, deviceId);
    expect((await deviceOfCookie(console.context, cookie))?.id).toBe(deviceId);
  });

  it('joins again as itself, and not as a machine that somebody else is', async () => {
    const deviceId = await joined();
    const cookie = await cookieOfDevice(console.context, deviceId);
    expect(await join({}, cookie)).toMatchObject({ ok: true, value: { deviceId } });
    expect(await join()).toMatchObject({ fault: { code: 'device-taken' } });
    expect((await page()).agents).toHaveLength(1);
  });

  it('that joins again without saying where stays where it was', async () => {
    const deviceId = await joined();
    const cookie = await cookieOfDevice(console.context, deviceId);
    expect((await join({ spotName: '' }, cookie)).ok).toBe(true);
    expect((await page()).agents[0]!.spotName).toBe('Attic');
  });

  it.each([
    ['a code that is none', { code: 'KKKKKK' }, 'code-unknown'],
    ['another protocol', { hello: { protocol: AGENT_PROTOCOL + 1 } }, 'agent-other-version'],
  ])('is refused with %s, and leaves nothing behind', async (_, change, fault) => {
    const { code: typed = code, hello: said = {} } = change as { code?: string; hello?: Partial<AgentHello> };
    const visitor = { ...STRANGER, code: typed, cookie: null };
    const refused = await joinAgent(console.context, visitor, order({ code: typed, hello: hello(said) }));
    expect(refused).toMatchObject({ fault: { code: fault } });
    expect(await console.context.store.sites.devicesOf(siteId)).toEqual([]);
  });

  it('is there while it stands by, and was seen last when it went', async () => {
    const id = await joined();
    const { session } = await standingDevice(console, siteId, { id });
    expect((await page()).agents[0]!.present).toBe(true);
    console.advanceMs(3600_000);
    const wentAtMs = console.context.wallMs();
    await session.leave();
    console.advanceMs(3600_000);
    expect((await page()).agents[0]).toMatchObject({ present: false, seenAtMs: wentAtMs });
  });

  it('tells what changed of its links, each change once, until somebody has seen it', async () => {
    const id = await joined();
    const { session } = await standingDevice(console, siteId, { id });
    const say = (facts: MachineFacts) => session.hear(JSON.stringify({ kind: 'hello', hello: hello({ facts }) }));
    await say(FACTS);
    expect((await page()).changes).toEqual([]);
    await say(at100);
    await say(at100);
    const { changes } = await page();
    expect(changes).toMatchObject([
      { deviceName: 'Attic box', sentence: 'eth0 comes up at 100 Mb/s instead of 1000 Mb/s', seenAtMs: null },
    ]);
    await noteChangeSeen(console.context, changes[0]!.id);
    expect((await page()).changes[0]!.seenAtMs).toBe(console.context.wallMs());
    expect(await noteChangeSeen(console.context, 'none')).toMatchObject({ fault: { code: 'link-change-unknown' } });
  });

  it('is sent away, and told why, when it speaks otherwise; what was known of it stays', async () => {
    const id = await joined();
    const { session, told } = await standingDevice(console, siteId, { id });
    await session.hear(JSON.stringify({ kind: 'hello', hello: hello({ protocol: 99, version: '9.0.0' }) }));
    expect(told).toEqual([{ kind: 'dismissed', reason: 'other-version' }]);
    expect((await page()).agents[0]!.version).toBe('0.1.0');
  });

  const heard = (address: string, last: string, name: string | null = null) => ({
    ...{ address, name, mac: `02:00:5e:10:00:${last}` },
  });

  it('tells who else is on the network: new until somebody knows them, by the last address and a name once it has one', async () => {
    const id = await joined();
    const device = (await console.context.store.sites.device(id))!;
    const say = (...neighbours: AgentHello['neighbours'][number][]) =>
      noteHello(console.context, device, hello({ neighbours }));
    await say(heard('192.0.2.1', '01', 'router.quill.example'), heard('192.0.2.7', '07'));
    expect((await page()).neighbours.map(({ fresh }) => fresh)).toEqual([true, true]);
    // What an agent of ours has is told as that.
    expect((await page()).neighbours.find(({ address }) => address === '192.0.2.7')).toMatchObject({
      agentName: 'Attic box',
    });
    await noteNeighboursKnown(console.context, siteId);
    console.advanceMs(86_400_000);
    await say(heard('192.0.2.99', '01'), heard('192.0.2.31', '31'));
    expect((await page()).neighbours).toMatchObject([
      { address: '192.0.2.31', fresh: true },
      { address: '192.0.2.7', fresh: false },
      { address: '192.0.2.99', fresh: false, name: 'router.quill.example' },
    ]);
    // Who was not heard for a week is not here.
    console.advanceMs(6.5 * 86_400_000);
    expect((await page()).neighbours.map(({ address }) => address)).toEqual(['192.0.2.31', '192.0.2.99']);
    expect(await noteNeighboursKnown(console.context, 'none')).toMatchObject({ fault: { code: 'site-missing' } });
  });

  it('of another version goes on, and the page says so; a clock that is off by much is told', async () => {
    const id = await joined();
    const device = (await console.context.store.sites.device(id))!;
    const clockMs = console.context.wallMs() - 86_400_000;
    await noteHello(console.context, device, hello({ version: '0.0.9', clockMs, outbox: 3 }));
    expect((await page()).agents[0]).toMatchObject({ otherVersion: true, clockOffMs: -86_400_000, outbox: 3 });
    await noteHello(console.context, device, hello({ clockMs: console.context.wallMs() + 1500 }));
    expect((await page()).agents[0]).toMatchObject({ otherVersion: false, clockOffMs: null });
  });

  it.each([
    ['no JSON', '{'],
    ['a hello without facts', JSON.stringify({ kind: 'hello', hello: { version: '0.1.0', protocol: 1 } })],
    [
      'a thousand links',
      JSON.stringify({
        kind: 'hello',
        hello: {
          ...{ version: '0.1.0', protocol: 1, clockMs: 0, outbox: 0 },
          facts: { ...FACTS, links: Array.from({ length: 1000 }, () => FACTS.links[0]) },
        },
      }),
    ],
    [
      'an outbox of less than nothing',
      JSON.stringify({ kind: 'hello', hello: { version: '0.1.0', protocol: 1, clockMs: 0, outbox: -1, facts: FACTS } }),
    ],
  ])('that says %s changes nothing', async (_, said) => {
    const id = await joined();
    const { session } = await standingDevice(console, siteId, { id });
    const before = await console.context.store.agents.byDevice(id);
    await session.hear(said);
    expect(await console.context.store.agents.byDevice(id)).toEqual(before);
  });

  it('that is retired is sent away for good; its device and its runs stay', async () => {
    const id = await joined();
    const { told, cookie } = await standingDevice(console, siteId, { id });
    expect(await retireAgent(console.context, id)).toMatchObject({ ok: true });
    expect(told).toEqual([{ kind: 'dismissed', reason: 'removed' }]);
    expect(await deviceOfCookie(console.context, cookie)).toBeNull();
    expect((await page()).agents).toEqual([]);
    expect((await console.context.store.sites.device(id))?.name).toBe('Attic box');
    expect(await retireAgent(console.context, id)).toMatchObject({ fault: { code: 'agent-unknown' } });
  });

  it('with a copy of the same state: the one that came first is dismissed, and does not come back by itself', async () => {
    const id = await joined();
    const first = await standingDevice(console, siteId, { id });
    const second = await standingDevice(console, siteId, { id });
    expect(first.told).toEqual([{ kind: 'dismissed', reason: 'elsewhere' }]);
    expect(second.told).toEqual([]);
  });

  it('goes with its device', async () => {
    const id = await joined();
    const { removeDevice } = await import('../office');
    await removeDevice(console.context, id);
    expect((await page()).agents).toEqual([]);
  });
});
